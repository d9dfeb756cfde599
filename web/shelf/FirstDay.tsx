import { findSubstance } from '#core/chemistry';
import { useRunList } from '../app/lists';
import { useRuns } from '../app/records';
import type { Stock } from '../app/stock';
import { useStock } from '../app/stock';
import { ButtonLink } from '../ui/Button';

/** One thing to do before the first molarity is certified. */
interface Begin {
  readonly what: string;
  readonly why: string;
  readonly isDone: boolean;
  readonly to: string;
  readonly button: string;
}

/** The five steps from an empty laboratory to a certified molarity, until the first one is certified. */
export function FirstDay() {
  const stock = useStock();
  // Where something certified stands on the shelf, nobody has to ask for what was used up.
  if (!stock || stock.bottles.some(({ certified }) => certified.length > 0)) return null;
  return <Steps stock={stock} />;
}

function Steps({ stock }: { readonly stock: Stock }) {
  const steps = useSteps(stock);
  if (!steps) return null;
  const next = steps.find(({ isDone }) => !isDone);
  return (
    <section aria-label="The first day" className="mb-8 max-w-3xl">
      <h2 className="mb-1 text-xl font-bold">
        {steps.some(({ isDone }) => isDone)
          ? 'On the way to the first certified molarity'
          : 'The shelf is empty: five steps to the first certified molarity'}
      </h2>
      <ol className="divide-y divide-rule border-y border-rule">
        {steps.map((step, i) => (
          <li key={step.what} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2.5">
            <span
              className={`flex size-9 shrink-0 items-center justify-center rounded-full border-2 font-mono font-bold ${step.isDone ? 'border-leaf text-leaf' : step === next ? 'border-violet text-violet' : 'border-rule-strong text-ink-soft'}`}
            >
              {step.isDone ? '✓' : i + 1}
            </span>
            <p className="min-w-0 flex-1 basis-72">
              <b className="block text-lg leading-tight">
                {step.what}
                {step.isDone && <span className="sr-only">: done</span>}
              </b>
              <span className="text-ink-soft">{step.why}</span>
            </p>
            {!step.isDone && (
              <ButtonLink to={step.to} look={step === next ? 'primary' : 'plain'}>
                {step.button}
              </ButtonLink>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** What is done of the five; undefined while it is being read, and where a molarity was certified before. */
function useSteps(stock: Stock): readonly Begin[] | undefined {
  const open = useRuns();
  const certified = useRunList('', 'certified');
  if (!open || !certified || certified.records.length > 0) return undefined;
  const { lots, bottles, equipment } = stock;
  const has = (type: string): boolean => equipment.some((item) => item.equipment.type === type);
  const hasLot = (role: string): boolean =>
    lots.some(({ lot }) => findSubstance(lot.substanceId, lot.own)?.role === role);
  const titrants = bottles.filter(({ purpose }) => purpose === 'titrant');
  return [
    {
      what: 'Lots of a standard and of what the titrant is made from',
      why: 'Such as potassium hydrogen phthalate and sodium hydroxide, with the purity on the certificate.',
      isDone: hasLot('primary-standard') && hasLot('titrant-material'),
      ...{ to: '/lots', button: 'Add a lot' },
    },
    {
      what: 'A balance and a burette',
      why: 'With the tolerances of their class or the figures of their certificates.',
      isDone: has('balance') && has('burette'),
      ...{ to: '/equipment', button: 'Add equipment' },
    },
    {
      what: 'A titrant on the shelf',
      why: 'Planned and made up step by step; or written down, where it stands there already.',
      isDone: titrants.length > 0,
      ...{ to: '/prepare', button: 'Prepare it' },
    },
    {
      what: 'A series of titrations',
      why: 'The bench says what comes next, asks about slips, and says when enough agree.',
      isDone: open.length > 0,
      ...{ to: '/titrate/set-up', button: 'Standardize it' },
    },
    {
      what: 'Its molarity, certified',
      why: 'With its uncertainty, until when it holds, and a label for the bottle.',
      isDone: false,
      ...{ to: '/judge', button: 'Judge it' },
    },
  ];
}
