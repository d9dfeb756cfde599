import type { ReactNode } from 'react';
import { figureText, roundSignificant } from '#core/measurement';
import type { Formula, WorkingStep } from '#core/measurement';
import { Symbol } from '../ui/typeset';

/** The working of a result: the last line is the result, those it rests on unfold above it. */
export function WorkingView({ steps }: { readonly steps: readonly WorkingStep[] }) {
  const [last, ...before] = steps.toReversed();
  if (!last) return null;
  return (
    <div className="flex flex-col gap-2">
      {before.length > 0 && (
        <details>
          <summary className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-10">
            Every step, flask by flask
          </summary>
          <ol className="flex flex-col gap-3 py-2">
            {before.toReversed().map((step) => (
              <li key={step.symbol}>
                <Step step={step} />
              </li>
            ))}
          </ol>
        </details>
      )}
      <Step step={last} />
    </div>
  );
}

function Step({ step }: { readonly step: WorkingStep }) {
  return (
    <div>
      <p className="text-sm text-ink-soft">{step.name}</p>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 text-[17px]">
        <Symbol of={step.symbol} />
        <span>=</span>
        <Typeset of={step.equation} />
        <span>=</span>
        <Typeset of={step.substituted} />
        <span>=</span>
        <b className="whitespace-nowrap">
          <span className="font-mono">{figureText(roundSignificant(step.result.value, 6))}</span>{' '}
          {step.result.unit}
        </b>
      </div>
    </div>
  );
}

/** An equation as it is written by hand: fractions stacked, sums in brackets inside products. */
function Typeset({ of, isInner = false }: { readonly of: Formula; readonly isInner?: boolean }) {
  switch (of.kind) {
    case 'symbol':
      return <Symbol of={of.symbol} />;
    case 'number':
      return (
        <span className="whitespace-nowrap">
          <span className="font-mono">{figureText(of.text)}</span>
          {of.unit && ` ${of.unit}`}
        </span>
      );
    case 'sum':
      return (
        <span className="inline-flex flex-wrap items-center gap-x-1.5">
          {isInner && <span>(</span>}
          {of.terms.map((term, i) => (
            <span key={i} className="inline-flex items-center gap-x-1.5">
              {term.sign < 0 ? <span>−</span> : i > 0 && <span>+</span>}
              <Typeset of={term.of} isInner />
            </span>
          ))}
          {isInner && <span>)</span>}
        </span>
      );
    case 'product':
      return (
        <span className="inline-flex flex-wrap items-center gap-x-1.5">
          {of.factors.map((factor, i) => (
            <span key={i} className="inline-flex items-center gap-x-1.5">
              {i > 0 && <span>·</span>}
              <Typeset of={factor} isInner />
            </span>
          ))}
        </span>
      );
    case 'quotient':
      return (
        <Fraction over={<Typeset of={of.numerator} />} under={<Typeset of={of.denominator} />} />
      );
    case 'mean':
      return (
        <Fraction
          over={
            <Typeset of={{ kind: 'sum', terms: of.items.map((item) => ({ sign: 1, of: item })) }} />
          }
          under={<span className="font-mono">{of.items.length}</span>}
        />
      );
    case 'power':
      return (
        <span>
          <Typeset of={of.base} isInner />
          <sup className="text-[0.7em]">
            <Typeset of={of.exponent} />
          </sup>
        </span>
      );
    case 'function':
      return (
        <span className="whitespace-nowrap">
          {of.name} (<Typeset of={of.of} />)
        </span>
      );
  }
}

function Fraction({ over, under }: { readonly over: ReactNode; readonly under: ReactNode }) {
  return (
    <span className="inline-flex flex-col items-center text-center">
      <span className="px-1 pb-0.5">{over}</span>
      <span className="self-stretch border-t border-ink px-1 pt-0.5">{under}</span>
    </span>
  );
}
