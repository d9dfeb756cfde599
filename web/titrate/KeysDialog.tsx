import { Button, KeyHint } from '../ui/Button';
import { Dialog } from '../ui/Dialog';

/** Every key of the bench, in the order of the work. */
const KEYS: readonly (readonly [key: string, does: string])[] = [
  ['Enter', 'keep what was typed'],
  ['W', 'weigh or fill another flask'],
  ['N', 'make a blank'],
  ['T', 'titrate the next flask'],
  ['B', 'check the burette'],
  ['C', 'carry the last reading on'],
  ['H', 'temperature of a hot flask'],
  ['P', 'the colour is there: time it'],
  ['F', 'it faded'],
  ['⇧ Enter', 'write the reading down, then one more drop'],
  ['R', 'stop and refill in the middle'],
  ['G', 'end point just there'],
  ['O', 'end point a drop over'],
  ['X', 'end point far over'],
  ['Z', 'not reached: take it back'],
  ['I', 'does an incident matter?'],
  ['L', 'large figures, and back'],
  ['?', 'this list'],
];

/** The list of keys, one key away. */
export function KeysDialog({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog
      title="Keys of the bench"
      description={<p>A letter is a command wherever no figure is being typed.</p>}
      onClose={onClose}
    >
      <dl className="grid grid-cols-2 gap-x-8 gap-y-1.5">
        {KEYS.map(([key, does]) => (
          <div key={key} className="flex items-baseline gap-3">
            <dt className="w-[76px] shrink-0 text-right">
              <KeyHint>{key}</KeyHint>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-4">
        <Button look="primary" onClick={onClose}>
          Back to the bench
        </Button>
      </div>
    </Dialog>
  );
}
