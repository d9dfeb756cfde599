import { ButtonLink } from '../ui/Button';
import { Symbol } from '../ui/typeset';

interface Way {
  readonly question: string;
  readonly to: string;
  readonly go: string;
  /** What is in the burette and what in the flask, each with what is known of it and what is sought. */
  readonly solutions: readonly {
    readonly name: string;
    readonly strength: string;
    readonly amount: string;
    readonly isSought: boolean;
  }[];
  /** Symbols with their meaning, in the order of the equation. */
  readonly formula: readonly string[];
  readonly where: string;
}

/** The two halves of the work: the same titration, with known and sought exchanged. */
const WAYS: readonly Way[] = [
  {
    question: 'How strong is my titrant?',
    to: '/titrate/set-up',
    go: 'Standardize a bottle',
    solutions: [
      { name: 'titrant', strength: 'sought', amount: 'titre, read', isSought: true },
      { name: 'standard', strength: 'known', amount: 'weighed or pipetted', isSought: false },
    ],
    formula: ['c_t', ' = ', 'ν', ' ', 'n_s', ' / ', 'V'],
    where: 'n of the standard from its mass and purity, or its molarity and volume; V the titre',
  },
  {
    question: 'How much is in my sample?',
    to: '/titrate/samples',
    go: 'Titrate samples',
    solutions: [
      { name: 'titrant', strength: 'known, certified', amount: 'titre, read', isSought: false },
      { name: 'sample', strength: 'sought', amount: 'weighed or pipetted', isSought: true },
    ],
    formula: ['x', ' = ', 'ν', ' ', 'c_t', ' ', 'V', ' ', 'M', ' / portion'],
    where: 'c of the titrant from its certificate; V the titre; the portion that of the original',
  },
];

/** Which of the two solutions is known, and the way to begin. */
export function TwoWays() {
  return (
    <div className="mt-8 grid max-w-4xl grid-cols-1 gap-5 md:grid-cols-2">
      {WAYS.map((way) => (
        <WayCard key={way.to} way={way} />
      ))}
    </div>
  );
}

function WayCard({ way: { question, to, go, solutions, formula, where } }: { readonly way: Way }) {
  return (
    <section className="flex flex-col rounded-md border border-rule-strong bg-sheet p-5">
      <h2 className="text-lg font-bold">{question}</h2>
      <table className="mt-3 w-full text-left text-[15px]">
        <thead>
          <tr className="border-b border-rule text-ink-soft">
            <td />
            {solutions.map(({ name }) => (
              <th key={name} scope="col" className="py-1 font-normal">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr className="border-b border-rule">
            <th scope="row" className="py-1 pr-3 font-normal text-ink-soft">
              strength
            </th>
            {solutions.map(({ name, strength, isSought }) => (
              <td key={name} className={`py-1 ${isSought ? 'font-bold text-violet' : ''}`}>
                {strength}
              </td>
            ))}
          </tr>
          <tr>
            <th scope="row" className="py-1 pr-3 font-normal text-ink-soft">
              amount
            </th>
            {solutions.map(({ name, amount }) => (
              <td key={name} className="py-1">
                {amount}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <p className="mt-3 text-xl">
        {formula.map((part, i) =>
          /^[ =/]/.test(part) ? part : <Symbol key={`${part}${String(i)}`} of={part} />,
        )}
      </p>
      <p className="mb-4 text-sm text-ink-soft">{where}.</p>
      <p className="mt-auto">
        <ButtonLink to={to} look="primary">
          {go}
        </ButtonLink>
      </p>
    </section>
  );
}
