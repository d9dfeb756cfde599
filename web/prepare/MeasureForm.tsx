import { useEffect, useRef, useState } from 'react';
import type { DecimalText } from '#core/measurement';
import { parseDecimal, ZERO } from '#core/measurement';
import type { Balance } from '#core/metrology';
import type { Quantity, StepState } from '#core/preparation';
import type { Finding } from '#core/record';
import { impossible } from '#core/record';
import { useSession } from '../app/session';
import { BalancePanel } from '../devices/BalancePanel';
import { Button, KeyHint } from '../ui/Button';
import { FigureField } from '../ui/FigureField';
import { Findings } from '../ui/Findings';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import { WeighingModeChoice } from '../ui/WeighingModeChoice';

const NOT_A_NUMBER = impossible('not-a-number', 'entry', { examples: ['5.1066'] });

interface MeasureFormProps {
  readonly step: StepState;
  /** For a mass. */
  readonly balance: Balance | null;
  readonly findings: readonly Finding[];
  readonly reason: string;
  readonly onReason: (reason: string) => void;
  readonly onChange: () => void;
  readonly onWrong: (findings: readonly Finding[]) => void;
  readonly onEnter: (quantity: Quantity, takenFrom: string | null) => void;
}

/** Where the figure of a step is typed, or taken from the balance. A second entry corrects the first, with a reason. */
export function MeasureForm(props: MeasureFormProps) {
  const { step, balance, findings } = props;
  const { isDemo } = useSession().person;
  const [mode, setMode] = useState<WeighingMode>('tared');
  const [typed, setTyped] = useState<readonly [string, string]>(['', '']);
  const [takenFrom, setTakenFrom] = useState<string | null>(null);
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => {
    first.current?.focus();
  }, [mode]);
  const isDifference = balance !== null && mode === 'by-difference';

  const change = (next: readonly [string, string], from: string | null): void => {
    setTyped(next);
    setTakenFrom(from);
    props.onChange();
  };
  const submit = (): void => {
    const [one, two] = typed.map((text) => parseDecimal(text));
    if (one === null || one === undefined || (isDifference && !two)) {
      props.onWrong([NOT_A_NUMBER]);
      return;
    }
    props.onEnter(quantityOf(step, mode, one, two ?? ZERO), takenFrom);
  };
  const [label, unit] = labelOf(step, mode);
  const isCorrection = step.entries.length > 0;
  return (
    <div className="mt-3">
      {isDemo && balance && !isCorrection && step.measures?.kind === 'mass' && (
        <BalancePanel
          balance={balance}
          targetG={step.measures.targetG}
          onTake={(massG, from) => {
            const isSecond = isDifference && typed[0] !== '';
            change(isSecond ? [typed[0], massG] : [massG, typed[1]], from);
          }}
        />
      )}
      <form
        noValidate
        aria-label="Entry"
        className="mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
      >
        <div className="flex items-stretch gap-3">
          <FigureField
            ref={first}
            label={isCorrection ? `corrected: ${label}` : label}
            unit={unit}
            value={typed[0]}
            isWrong={findings.length > 0}
            onChange={(text) => {
              change([text, typed[1]], null);
            }}
          />
          {isDifference && (
            <FigureField
              label="after"
              unit="g"
              value={typed[1]}
              isWrong={findings.length > 0}
              onChange={(text) => {
                change([typed[0], text], null);
              }}
            />
          )}
          <Button type="submit" look="primary" className="w-[112px] shrink-0 px-2 text-lg">
            Keep <KeyHint>Enter</KeyHint>
          </Button>
        </div>
        {balance !== null && (
          <WeighingModeChoice
            mode={mode}
            onMode={(chosen) => {
              setMode(chosen);
              change(['', ''], null);
            }}
          />
        )}
        <Findings findings={findings} reason={props.reason} onReason={props.onReason} />
      </form>
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
