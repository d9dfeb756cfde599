import { substancesOf } from '#core/label';
import type { RunState } from '#core/titration/run';
import { Cautions } from '../ui/Cautions';
import { Dialog } from '../ui/Dialog';
import { WaysOut } from '../ui/WaysOut';
import { HazardsAtHand } from './HazardsAtHand';

interface HazardsDialogProps {
  readonly run: RunState;
  readonly onClose: () => void;
}

/** What is dangerous on the bench, what to take care of, and where it goes in the end. */
export function HazardsDialog({ run, onClose }: HazardsDialogProps) {
  const { references } = run;
  return (
    <Dialog
      title="Hazards and waste"
      description="Of all that this run has at hand, at its own concentration."
      onClose={onClose}
    >
      <div className="mt-4 flex flex-col gap-4">
        <HazardsAtHand references={references} />
        <Cautions cautions={references.method.cautions} />
        <RunWaysOut run={run} />
      </div>
    </Dialog>
  );
}

/** Where everything goes when the run is over. */
export function RunWaysOut({ run: { references, setUp } }: { readonly run: RunState }) {
  return (
    <WaysOut
      substances={substancesOf(references)}
      waste={setUp.rules.waste}
      further={[
        'Empty and rinse the burette and its tip; put it away inverted with the stopcock open, or full of water and capped.',
      ]}
    />
  );
}
