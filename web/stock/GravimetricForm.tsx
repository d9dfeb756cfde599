import { useState } from 'react';
import { addToDate } from '#core/laboratory';
import { parseDecimal, roundToUncertainty } from '#core/measurement';
import type { CalibratedVolume, EquipmentState } from '#core/metrology';
import { calibratedVolume } from '#core/metrology';
import { Unanswerable } from '#core/problem';
import { useAddToRecord } from '../app/records';
import { useSession } from '../app/session';
import { QuantityField, TextAreaField, TextField } from '../ui/fields';
import { StockFormFrame } from './StockFormFrame';

/** Calibrates a vessel with water: weighings in, volume at 20 °C out, as they are typed. */
export function GravimetricForm({
  state,
  onDone,
}: {
  readonly state: EquipmentState;
  readonly onDone: () => void;
}) {
  const { equipment } = state;
  const { today } = useSession();
  const add = useAddToRecord();
  const marked =
    equipment.type === 'glassware'
      ? equipment.volumeMl
      : equipment.type === 'burette'
        ? equipment.capacityMl
        : '';
  const toleranceMl =
    equipment.type === 'glassware' || equipment.type === 'burette'
      ? Number(equipment.toleranceMl)
      : null;
  const [nominal, setNominal] = useState(marked);
  const [temperature, setTemperature] = useState('20.0');
  const [weighings, setWeighings] = useState('');
  const [due, setDue] = useState(addToDate(today, { months: 12 }));
  const [error, setError] = useState<string>();
  const typed = weighings
    .split(/[\s;]+/)
    .filter((text) => text !== '')
    .map((text) => parseDecimal(text) ?? text);
  const outcome = compute(nominal, temperature, typed);
  return (
    <StockFormFrame
      name="A calibration with water"
      submit="Keep the calibration"
      isBusy={add.isPending}
      error={error}
      onDone={onDone}
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate(
          {
            recordId: state.id,
            basedOn: state.version,
            fact: {
              kind: 'equipment.calibrated',
              body: {
                calibratedOn: today,
                due: due === '' ? null : due,
                certificate: 'with water, in this laboratory',
                found: {
                  kind: 'weighings',
                  temperatureC: parseDecimal(temperature) ?? temperature,
                  volumes: [{ nominalMl: parseDecimal(nominal) ?? nominal, weighingsG: typed }],
                },
              },
            },
          },
          {
            onSuccess: onDone,
            onError: (failure) => {
              setError(failure.message);
            },
          },
        );
        return Promise.resolve();
      }}
    >
      <QuantityField
        label="Volume marked"
        unit="mL"
        value={nominal}
        onChange={(event) => {
          setNominal(event.target.value);
        }}
      />
      <QuantityField
        label="Water at"
        unit="°C"
        value={temperature}
        onChange={(event) => {
          setTemperature(event.target.value);
        }}
      />
      <TextField
        label="Next due"
        type="date"
        value={due}
        onChange={(event) => {
          setDue(event.target.value);
        }}
      />
      <TextAreaField
        label="Net masses of water / g"
        hint="As the balance shows them, one after another."
        rows={4}
        value={weighings}
        onChange={(event) => {
          setWeighings(event.target.value);
        }}
      />
      <div className="col-span-2 self-center">
        {typeof outcome === 'string' ? (
          <p className="text-ink-soft">{outcome}</p>
        ) : (
          <Outcome volume={outcome} toleranceMl={toleranceMl} />
        )}
      </div>
    </StockFormFrame>
  );
}

/** The volume, or why there is none yet. */
function compute(
  nominal: string,
  temperature: string,
  typed: readonly string[],
): CalibratedVolume | string {
  if (typed.length === 0) return 'The volume at 20 °C appears here.';
  const numbers = [nominal, temperature, ...typed].map((text) => Number(parseDecimal(text) ?? NaN));
  const [nominalMl = NaN, temperatureC = NaN, ...weighingsG] = numbers;
  if (numbers.some(Number.isNaN)) return 'One of the figures is no number.';
  try {
    return calibratedVolume(nominalMl, temperatureC, weighingsG);
  } catch (error) {
    if (error instanceof Unanswerable) return error.message;
    throw error;
  }
}

function Outcome({
  volume,
  toleranceMl,
}: {
  readonly volume: CalibratedVolume;
  readonly toleranceMl: number | null;
}) {
  const { nominalMl, deviationMl, expandedUncertaintyMl } = volume;
  const really = roundToUncertainty(nominalMl + deviationMl, expandedUncertaintyMl);
  const off = roundToUncertainty(deviationMl, expandedUncertaintyMl);
  const isWithin = toleranceMl !== null && Math.abs(deviationMl) <= toleranceMl;
  return (
    <>
      <p className="text-[26px] leading-tight font-bold">
        <span className="font-mono">{really.value}</span> ±{' '}
        <span className="font-mono">{really.uncertainty}</span> mL at 20 °C
      </p>
      <p>
        Off by {off.value} mL
        {toleranceMl !== null &&
          (isWithin ? (
            <span className="text-leaf">, within its ± {toleranceMl} mL</span>
          ) : (
            <b className="text-blush">, outside its ± {toleranceMl} mL</b>
          ))}
        . From now on this volume is reckoned with.
      </p>
    </>
  );
}
