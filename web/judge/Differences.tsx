import { useState } from 'react';
import { figureText, roundHalfEven } from '#core/measurement';
import type { Result } from '#core/titration/judging';
import { differenceOf, judgeRun } from '#core/titration/judging';
import type { AnalysisRun } from '#core/titration/run';
import { sampleOf } from '#core/titration/setUp';
import { foundUnit } from '../titrate/found';
import { SelectField } from '../ui/fields';
import { Table } from '../ui/Table';

interface Judged {
  readonly series: AnalysisRun;
  readonly result: Result;
  readonly id: string;
  readonly code: string;
}

/** By how much the samples of a batch differ: what is common to them cancels, so that these are surer than the contents. */
export function Differences({ series }: { readonly series: readonly AnalysisRun[] }) {
  const judged = series.flatMap((one): readonly Judged[] => {
    const { result } = judgeRun(one);
    const { id, sample } = sampleOf(one.references).state;
    return result ? [{ series: one, result, id, code: sample.code }] : [];
  });
  const [isOpen, setOpen] = useState(false);
  if (judged.length < 2) return null;
  return (
    <details
      className="mb-6 max-w-3xl"
      onToggle={(event) => {
        setOpen(event.currentTarget.open);
      }}
    >
      <summary className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-10">
        Differences between the samples
      </summary>
      {/* Of thirty samples each is a budget of its own: computed for whoever looks. */}
      {isOpen && <DifferencesShown judged={judged} />}
    </details>
  );
}

function DifferencesShown({ judged }: { readonly judged: readonly Judged[] }) {
  const [chosenId, setChosenId] = useState('');
  const from = judged.find(({ id }) => id === chosenId) ?? judged[0];
  if (!from) return null;
  const others = judged.filter((one) => one !== from);
  return (
    <>
      <div className="max-w-xs">
        <SelectField
          label="Compared with"
          options={judged.map(({ id, code }) => [id, code] as const)}
          value={from.id}
          onText={setChosenId}
        />
      </div>
      <Table
        caption="Differences"
        heads={[
          'Sample',
          `Less ${from.code} / ${foundUnit(from.series)}`,
          'U of the titration',
          'k',
        ]}
        rows={others.map((one) => {
          const difference = differenceOf(one, from);
          return {
            key: one.id,
            cells: difference
              ? [
                  one.code,
                  <b key="d" className="font-mono">
                    {figureText(difference.value)}
                  </b>,
                  <span key="u" className="font-mono">
                    ± {figureText(difference.uncertainty)}
                  </span>,
                  figureText(roundHalfEven(difference.coverageFactor, 2)),
                ]
              : [one.code, 'stated otherwise', '–', '–'],
          };
        })}
      />
      <p className="text-sm text-ink-soft">
        Titrant, burette and glassware are the same for both, so that much of their uncertainty
        cancels.
      </p>
    </>
  );
}
