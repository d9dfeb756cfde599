import { useState } from 'react';
import { addToDate } from '#core/grammar';
import { parseDecimal, roundToUncertainty } from '#core/measurement';
import type { CalibratedVolume, Equipment, EquipmentState } from '#core/metrology';
import { calibratedVolume } from '#core/metrology';
import { Unanswerable } from '#core/problem';
import { useAddToRecord } from '../app/entering';
import { useSession } from '../app/session';
import { QuantityField, TextAreaField, TextField } from '../ui/fields';
import { StockFormFrame } from './StockFormFrame';

/** Parts of a burette's scale whose ends are weighed. */
const PARTS_OF_SCALE = 5;

/** A volume and the masses of water that it held, as typed. */
interface TypedVolume {
  readonly nominal: string;
  readonly weighings: string;
}

/** Calibrates a vessel with water: weighings in, volumes at 20 °C out, as they are typed. */
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
  const [volumes, setVolumes] = useState(() => volumesToWeigh(equipment));
  const [temperature, setTemperature] = useState('20.0');
  const [due, setDue] = useState<string>(addToDate(today, { months: 12 }));
  const [error, setError] = useState<string>();
  const change = (i: number, changes: Partial<TypedVolume>): void => {
    setVolumes(volumes.map((volume, k) => (k === i ? { ...volume, ...changes } : volume)));
  };
  const isBurette = equipment.type === 'burette';
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
                  temperatureC: decimalOf(temperature),
                  volumes: volumes
                    .map(({ nominal, weighings }) => ({
                      nominalMl: decimalOf(nominal),
                      weighingsG: massesOf(weighings),
                    }))
                    .filter(({ weighingsG }) => weighingsG.length > 0),
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
      <QuantityField label="Water at" unit="°C" value={temperature} onText={setTemperature} />
      <TextField label="Next due" type="date" value={due} onText={setDue} />
      {isBurette && (
        <p className="col-span-full text-ink-soft">
          Each volume delivered from the zero mark. Corrections are reckoned with, linear between
          the volumes, once they reach {equipment.capacityMl} mL.
        </p>
      )}
      {volumes.map(({ nominal, weighings }, i) => (
        <fieldset key={i} className="col-span-full grid grid-cols-1 gap-x-6 md:grid-cols-3">
          <legend className="sr-only">Volume {i + 1}</legend>
          <QuantityField
            label={isBurette ? 'Delivered from zero to' : 'Volume marked'}
            unit="mL"
            value={nominal}
            onChange={(event) => {
              change(i, { nominal: event.target.value });
            }}
          />
          <TextAreaField
            label="Net masses of water / g"
            hint={i === 0 ? 'As the balance shows them, one after another.' : undefined}
            rows={isBurette ? 2 : 4}
            value={weighings}
            onChange={(event) => {
              change(i, { weighings: event.target.value });
            }}
          />
          <div className="self-center">
            <Outcome
              of={compute(nominal, temperature, massesOf(weighings))}
              toleranceMl={toleranceMl(equipment)}
            />
          </div>
        </fieldset>
      ))}
    </StockFormFrame>
  );
}

/** What is weighed: the volume marked, or the ends of equal parts of a burette's scale. */
function volumesToWeigh(equipment: Equipment): readonly TypedVolume[] {
  if (equipment.type === 'glassware') return [{ nominal: equipment.volumeMl, weighings: '' }];
  if (equipment.type !== 'burette') return [];
  const partMl = Number(equipment.capacityMl) / PARTS_OF_SCALE;
  return Array.from({ length: PARTS_OF_SCALE }, (_, i) => ({
    nominal: String((i + 1) * partMl),
    weighings: '',
  }));
}

function toleranceMl(equipment: Equipment): number | null {
  const holdsVolume = equipment.type === 'glassware' || equipment.type === 'burette';
  return holdsVolume ? Number(equipment.toleranceMl) : null;
}

/** A number as it is sent; what is none stays as it was typed, and is refused with its place. */
function decimalOf(text: string): string {
  return parseDecimal(text) ?? text;
}

function massesOf(weighings: string): readonly string[] {
  return weighings
    .split(/[\s;]+/)
    .filter((text) => text !== '')
    .map(decimalOf);
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
  of: volume,
  toleranceMl,
}: {
  readonly of: CalibratedVolume | string;
  readonly toleranceMl: number | null;
}) {
  if (typeof volume === 'string') return <p className="text-ink-soft">{volume}</p>;
  const { nominalMl, deviationMl, expandedUncertaintyMl } = volume;
  const really = roundToUncertainty(nominalMl + deviationMl, expandedUncertaintyMl);
  const off = roundToUncertainty(deviationMl, expandedUncertaintyMl);
  const isWithin = toleranceMl !== null && Math.abs(deviationMl) <= toleranceMl;
  return (
    <>
      <p className="text-[22px] leading-tight font-bold">
        <span className="font-mono">{really.value}</span> ±{' '}
        <span className="font-mono">{really.uncertainty}</span> mL{' '}
        <span className="text-base font-normal whitespace-nowrap">at 20 °C</span>
      </p>
      <p>
        Off by {off.value} mL
        {toleranceMl !== null &&
          (isWithin ? (
            <span className="text-leaf">, within its ± {toleranceMl} mL</span>
          ) : (
            <b className="text-blush">, outside its ± {toleranceMl} mL</b>
          ))}
        .
      </p>
    </>
  );
}
