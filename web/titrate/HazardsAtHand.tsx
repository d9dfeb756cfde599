import { hazardsAtHand } from '#core/label';
import type { RunReferences } from '#core/titration/setUp';
import { HazardMarks } from '../ui/HazardMarks';

interface HazardsAtHandProps {
  readonly references: RunReferences;
}

/** The hazards of all that stands on the bench. */
export function HazardsAtHand({ references }: HazardsAtHandProps) {
  const things = hazardsAtHand(references);
  const harmless = things.filter(({ hazards }) => hazards.statements.length === 0);
  return (
    <div className="flex flex-col gap-4">
      {things.map(({ name, hazards }) => (
        <HazardMarks key={name} of={name} hazards={hazards} isSourceSaid />
      ))}
      {harmless.length > 0 && (
        <p className="text-sm">
          No hazard class at this strength: {harmless.map(({ name }) => name).join('; ')}.
        </p>
      )}
      <p className="text-sm text-ink-soft">
        From the catalogue, unless a sheet is named; each ingredient is classified by itself. Check
        against your safety data sheet.
      </p>
    </div>
  );
}
