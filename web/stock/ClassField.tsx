import type { Distribution } from '#core/measurement';
import type { GlasswareClass, GlasswareKind } from '#core/metrology';
import { glasswareOf, TOLERANCE_DISTRIBUTION } from '#core/metrology';
import { SelectField } from '../ui/fields';

interface ClassFieldProps {
  readonly kind: GlasswareKind;
  readonly volumeMl: number;
  /** Of a burette; a vessel with a single mark has none. */
  readonly divisionMl?: number;
  readonly onChoose: (toleranceMl: string, distribution: Distribution) => void;
}

/** The class that is printed on a vessel; choosing it fills in the tolerance that its standard allows. */
export function ClassField({ kind, volumeMl, divisionMl, onChoose }: ClassFieldProps) {
  const classes = glasswareOf(kind)
    .filter(
      (size) =>
        size.nominalMl === volumeMl && (divisionMl === undefined || size.divisionMl === divisionMl),
    )
    .flatMap(({ toleranceMl, standard }) =>
      // The keys of the table, which has no others for glass.
      (Object.entries(toleranceMl) as [GlasswareClass, number][]).map(([name, tolerance]) => ({
        key: `${standard}, class ${name}`,
        toleranceMl: String(tolerance),
        distribution: TOLERANCE_DISTRIBUTION[name],
      })),
    );
  return (
    <SelectField
      label="Class printed on it"
      value=""
      hint={
        classes.length > 0
          ? 'Fills in the tolerance of the standard.'
          : 'No standard here has this size: take the tolerance from its certificate.'
      }
      onText={(chosen) => {
        const found = classes.find(({ key }) => key === chosen);
        if (found) onChoose(found.toleranceMl, found.distribution);
      }}
    >
      <option value="">choose, or write the tolerance</option>
      {classes.map(({ key, toleranceMl }) => (
        <option key={key} value={key}>
          {key}: ± {toleranceMl} mL
        </option>
      ))}
    </SelectField>
  );
}
