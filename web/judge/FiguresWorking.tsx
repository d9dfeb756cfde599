import type { ReactNode } from 'react';
import { figureText, roundHalfEven, roundSignificant } from '#core/measurement';
import type { Judgement, Result } from '#core/titration/judging';

interface Line {
  readonly key: string;
  readonly name: string;
  readonly equation: ReactNode;
  readonly numbers: string;
}

/** How the statistics and the uncertainty come from the molarities and the budget, with the numbers put in. */
export function FiguresWorking({
  judgement,
  result,
}: {
  readonly judgement: Judgement;
  readonly result: Result;
}) {
  const lines = [...statisticsLines(judgement), ...uncertaintyLines(result)];
  return (
    <ul className="mt-5 grid grid-cols-1 gap-x-10 gap-y-3 md:grid-cols-2">
      {lines.map(({ key, name, equation, numbers }) => (
        <li key={key}>
          <p className="text-sm text-ink-soft">{name}</p>
          <p className="text-[17px]">
            {equation} = <span className="font-mono wrap-anywhere">{numbers}</span>
          </p>
        </li>
      ))}
    </ul>
  );
}

function statisticsLines({ accurate, averaged }: Judgement): readonly Line[] {
  if (!accurate || !averaged) return [];
  const { sampleSd, relativeSdPercent, mean, n } = accurate;
  if (sampleSd === null || relativeSdPercent === null) return [];
  const half = averaged.confidenceHalfWidth;
  return [
    {
      key: 's',
      name: `standard deviation of all ${String(n)} accurate titrations`,
      equation: (
        <>
          <i>s</i> = √( Σ (<i>c</i>
          <sub>i</sub> − <i>c̄</i>)² / (<i>n</i> − 1) )
        </>
      ),
      numbers: `${figureText(roundSignificant(sampleSd, 3))} mol/L`,
    },
    {
      key: 'rsd',
      name: 'relative standard deviation',
      equation: (
        <>
          RSD = <i>s</i> / <i>c̄</i>
        </>
      ),
      numbers: `${figureText(roundSignificant(sampleSd, 3))} / ${figureText(roundHalfEven(mean, 5))} = ${figureText(roundHalfEven(relativeSdPercent, 3))} %`,
    },
    {
      key: 'range',
      name: 'range of what is averaged, relative',
      equation: (
        <>
          (<i>c</i>
          <sub>max</sub> − <i>c</i>
          <sub>min</sub>) / <i>c̄</i>
        </>
      ),
      numbers: `${figureText(roundSignificant(averaged.range, 3))} / ${figureText(roundHalfEven(averaged.mean, 5))} = ${figureText(roundHalfEven(averaged.relativeRangePercent, 3))} %`,
    },
    ...(half === null
      ? []
      : [
          {
            key: 't',
            name: `t-interval of the mean of ${String(averaged.n)}, 95 %`,
            equation: (
              <>
                <i>t</i>
                <sub>
                  {figureText(0.975)}; {averaged.n - 1}
                </sub>{' '}
                <i>s</i> / √<i>n</i>
              </>
            ),
            numbers: `${figureText(roundSignificant(half, 2))} mol/L`,
          },
        ]),
  ];
}

function uncertaintyLines({ evaluation }: Result): readonly Line[] {
  const { combinedStandardUncertainty, coverageFactor, expandedUncertainty } = evaluation;
  const u = roundSignificant(combinedStandardUncertainty, 3);
  return [
    {
      key: 'u',
      name: 'combined standard uncertainty, from every line of the budget',
      equation: (
        <>
          <i>u</i>
          <sub>c</sub> = √( Σ (∂<i>c</i>/∂<i>x</i>
          <sub>i</sub> · <i>u</i>
          <sub>i</sub>)² )
        </>
      ),
      numbers: `${figureText(u)} mol/L`,
    },
    {
      key: 'U',
      name: 'expanded uncertainty; k from Student’s t at the effective degrees of freedom',
      equation: (
        <>
          <i>U</i> = <i>k u</i>
          <sub>c</sub>
        </>
      ),
      numbers: `${figureText(roundHalfEven(coverageFactor, 2))} · ${figureText(u)} = ${figureText(roundSignificant(expandedUncertainty, 2))} mol/L`,
    },
  ];
}
