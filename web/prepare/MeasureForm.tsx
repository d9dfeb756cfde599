import type { ComponentProps } from 'react';
import { useRef, useState } from 'react';
import type { DecimalText } from '#core/measurement';
import { parseDecimal, ZERO } from '#core/measurement';
import type { Balance } from '#core/metrology';
import type { Quantity, StepState } from '#core/preparation';
import type { Finding } from '#core/record';
import { impossible } from '#core/record';
import { useSession } from '../app/session';
import { BalancePanel } from '../devices/BalancePanel';
import type { Figures } from '../ui/FigurePair';
import { FigurePair } from '../ui/FigurePair';
import { Findings } from '../ui/Findings';
import { Form } from '../ui/Form';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import { WeighingModeChoice } from '../ui/WeighingModeChoice';

const NOT_A_NUMBER = impossible('not-a-number', 'entry', { examples: ['5.1066'] });

interface MeasureFormProps {
  readonly step: StepState;
  /** For a mass. */
  readonly balance: Balance | null;
  readonly shown: ComponentProps<typeof Findings>;
  readonly onFindings: (findings: readonly Finding[]) => void;
  readonly onEnter: (quantity: Quantity, takenFrom: string | null) => void;
}

/** What is typed: one figure, or two masses of a difference; and the balance that they were taken from. */
interface Typed {
  readonly mode: WeighingMode;
  readonly figures: Figures;
  readonly takenFrom: string | null;
}

const NOTHING: Typed = { mode: 'tared', figures: ['', ''], takenFrom: null };

/** Where the figure of a step is typed, or taken from the balance. A second entry corrects the first, with a reason. */
export function MeasureForm({ step, balance, shown, onFindings, onEnter }: MeasureFormProps) {
  const { isDemo } = useSession().person;
  const [typed, setTyped] = useState(NOTHING);
  const first = useRef<HTMLInputElement>(null);
  const { mode, figures } = typed;
  const isDifference = balance !== null && mode === 'by-difference';
  const change = (next: Typed): void => {
    setTyped(next);
    onFindings([]);
  };
  const submit = (): void => {
    const [one, two] = figures.map(parseDecimal);
    if (one && (!isDifference || two)) {
      onEnter(quantityOf(step, mode, one, two ?? ZERO), typed.takenFrom);
    } else {
      onFindings([NOT_A_NUMBER]);
    }
  };
  const [label, unit] = labelOf(step, mode);
  return (
    <div className="mt-3">
      {isDemo && balance && step.entries.length === 0 && step.measures?.kind === 'mass' && (
        <BalancePanel
          balance={balance}
          targetG={step.measures.targetG}
          onTake={(massG, takenFrom) => {
            const isSecond = isDifference && figures[0] !== '';
            change({
              mode,
              figures: isSecond ? [figures[0], massG] : [massG, figures[1]],
              takenFrom,
            });
          }}
        />
      )}
      <Form aria-label="Entry" className="mt-3" onSubmit={submit}>
        <FigurePair
          ref={first}
          labels={[step.entries.length > 0 ? `corrected: ${label}` : label, 'after']}
          unit={unit}
          value={figures}
          isDifference={isDifference}
          isWrong={shown.findings.length > 0}
          onChange={(next) => {
            change({ mode, figures: next, takenFrom: null });
          }}
        >
          {balance !== null && (
            <WeighingModeChoice
              mode={mode}
              onMode={(chosen) => {
                change({ ...NOTHING, mode: chosen });
              }}
            />
          )}
          <Findings {...shown} />
        </FigurePair>
      </Form>
    </div>
  );
}

function labelOf({ measures }: StepState, mode: WeighingMode): readonly [string, string] {
  switch (measures?.kind) {
    case 'mass':
      return [mode === 'tared' ? 'net mass' : 'before', 'g'];
    case 'volume':
      return ['volume taken', 'mL'];
    case 'temperature':
    case undefined:
      return ['temperature', '°C'];
  }
}

function quantityOf(
  { measures }: StepState,
  mode: WeighingMode,
  one: DecimalText,
  two: DecimalText,
): Quantity {
  switch (measures?.kind) {
    case 'mass':
      return {
        kind: 'mass',
        weighing: mode === 'tared' ? { mode, massG: one } : { mode, beforeG: one, afterG: two },
      };
    case 'volume':
      return { kind: 'volume', volumeMl: one };
    case 'temperature':
    case undefined:
      return { kind: 'temperature', temperatureC: one };
  }
}
