import { figureText } from '#core/measurement';
import type { ReactNode } from 'react';
import type { PreparationState } from '#core/preparation';
import { resultOf } from '#core/preparation';
import type { PreparedBottle } from '#core/reagent';
import type { Stock } from '../app/stock';
import { Molarity } from '../ui/typeset';
import { usePinned } from './usePinned';

/** What comes of a preparation: in its bottle as it was made, before that as it follows from what was measured. */
export function Outcome({
  preparation,
  stock,
}: {
  readonly preparation: PreparationState;
  readonly stock: Stock;
}) {
  const bottle = stock.bottles.find(({ id }) => id === preparation.bottleId);
  if (preparation.status === 'discarded') {
    return <p className="text-ink-soft">Nothing: it was discarded.</p>;
  }
  return bottle ? <Made bottle={bottle} /> : <SoFar preparation={preparation} stock={stock} />;
}

function Made({ bottle }: { readonly bottle: PreparedBottle }) {
  const { made, nominalMolarity, plausibleMolarity } = bottle;
  if (made) {
    return (
      <>
        <p className="text-lg">
          <Molarity value={made.molarity} uncertainty={made.expandedUncertainty} />
        </p>
        <p className="text-sm text-ink-soft">
          k = {figureText(made.coverageFactor)}; as it was bottled.
        </p>
      </>
    );
  }
  return nominalMolarity === null ? (
    <WithoutMolarity />
  ) : (
    <Nominal molarity={nominalMolarity} range={plausibleMolarity}>
      as it was bottled. Not standardized then.
    </Nominal>
  );
}

function SoFar({
  preparation,
  stock,
}: {
  readonly preparation: PreparationState;
  readonly stock: Stock;
}) {
  const result = resultOf(preparation, usePinned(preparation, stock));
  switch (result?.kind) {
    case undefined:
      return <p className="text-ink-soft">It follows from what is measured.</p>;
    case 'made':
      return (
        <>
          <p className="text-lg">
            <Molarity value={result.rounded.value} uncertainty={result.rounded.uncertainty} />
          </p>
          <p className="text-sm text-ink-soft">
            k = {figureText(result.coverageFactor)}; most of U from{' '}
            {result.evaluation.budget.toSorted((a, b) => b.share - a.share)[0]?.input.name}
          </p>
        </>
      );
    case 'nominal':
      return (
        <Nominal molarity={result.molarity} range={result.range}>
          {result.why}. Not standardized.
        </Nominal>
      );
    case 'without-molarity':
      return <WithoutMolarity />;
  }
}

function Nominal({
  molarity,
  range,
  children,
}: {
  readonly molarity: string;
  readonly range: readonly [string, string] | null;
  readonly children: ReactNode;
}) {
  return (
    <>
      <p className="text-xl">
        <span className="font-mono font-semibold">≈ {figureText(molarity)}</span> mol/L
      </p>
      <p className="text-sm text-ink-soft">
        Nominal{range && `, between ${figureText(range[0])} and ${figureText(range[1])}`}:{' '}
        {children}
      </p>
    </>
  );
}

function WithoutMolarity() {
  return <p className="text-ink-soft">An indicator has no molarity.</p>;
}
