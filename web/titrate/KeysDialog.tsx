import { Button, Key } from '../ui/Button';
import { Dialog } from '../ui/Dialog';

type Key = readonly [key: string, does: string];

/** Every key of the bench, under the place where the hands are. */
const KEYS: readonly (readonly [where: string, keys: readonly Key[]])[] = [
  [
    'Flasks',
    [
      ['W', 'weigh or fill another'],
      ['D', 'display of the balance'],
      ['N', 'make a blank'],
      ['T', 'titrate the next'],
    ],
  ],
  [
    'Burette',
    [
      ['B', 'check it'],
      ['C', 'carry the last reading on'],
      ['R', 'stop and refill in the middle'],
      ['⇧ Enter', 'read, one more drop'],
      ['E', 'electrode: follow the curve'],
    ],
  ],
  [
    'Colour',
    [
      ['H', 'temperature of a hot flask'],
      ['P', 'it is there: time it'],
      ['F', 'it faded'],
    ],
  ],
  [
    'End point',
    [
      ['G', 'just there'],
      ['O', 'a drop over'],
      ['X', 'far over'],
      ['Z', 'not reached: take it back'],
    ],
  ],
  [
    'Always',
    [
      ['Enter', 'keep what was typed'],
      ['I', 'does an incident matter?'],
      ['L', 'large figures, and back'],
      ['?', 'this list'],
    ],
  ],
];

/** The list of keys, one key away. */
export function KeysDialog({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog
      title="Keys of the bench"
      description={<p>A letter is a command wherever no figure is being typed.</p>}
      onClose={onClose}
    >
      <div className="mb-6 gap-x-8 sm:columns-2">
        {KEYS.map(([where, keys]) => (
          <section key={where} className="break-inside-avoid pb-4">
            <h3 className="mb-1 border-b border-rule font-bold">{where}</h3>
            <dl className="space-y-1">
              {keys.map(([key, does]) => (
                <div key={key} className="flex items-baseline gap-3">
                  <dt className="min-w-8 shrink-0">
                    <Key>{key}</Key>
                  </dt>
                  <dd>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <Button look="primary" onClick={onClose}>
        Back to the bench
      </Button>
    </Dialog>
  );
}
