import { addToDate } from '#core/grammar';
import { figureText, parseDecimal, roundToUncertainty } from '#core/measurement';
import type { CalibratedVolume, Equipment, EquipmentState } from '#core/metrology';
import { calibratedVolume } from '#core/metrology';
import { Unanswerable } from '#core/problem';
import { useAddToRecord } from '../app/entering';
import { useSession } from '../app/session';
import { DateField } from '../ui/DateField';
import { QuantityField, TextAreaField } from '../ui/fields';
import { numberIn } from '../ui/numberIn';
import { fieldsOf, useTyped } from '../ui/useTyped';
import { StockFormFrame } from './StockFormFrame';

/** Parts of a burette's scale whose ends are weighed. */
const PARTS_OF_SCALE = 5;

/** A volume and the masses of water that it held, as typed. */
interface TypedVolume {
  readonly nominal: string;
  readonly weighings: string;
}

interface GravimetricFormProps {
  readonly state: EquipmentState;
  readonly onDone: () => void;
}

/** Calibrates a vessel with water: weighings in, volumes at 20 °C out, as they are typed. */
export function GravimetricForm({ state, onDone }: GravimetricFormProps) {
  const { equipment } = state;
  const { today } = useSession();
  const add = useAddToRecord();
  const { typed, change, field } = useTyped(() => ({
    temperature: '20.0',
    due: String(addToDate(today, { months: 12 })),
    volumes: volumesToWeigh(equipment),
  }));
  const { temperature, due, volumes } = typed;
  const keep = (): void => {
    const body = {
      calibratedOn: today,
      due: due === '' ? null : due,
      certificate: 'with water, in this laboratory',
      found: foundWith(temperature, volumes),
    };
    const fact = { kind: 'equipment.calibrated', body } as const;
    add.mutate({ recordId: state.id, basedOn: state.version, fact }, { onSuccess: onDone });
  };
  return (
    <StockFormFrame
      name="A calibration with water"
      submit="Keep the calibration"
      isBusy={add.isPending}
      error={add.error?.message}
      onDone={onDone}
      onSubmit={keep}
    >
      <QuantityField label="Water at" unit="°C" {...field('temperature')} />
      <DateField label="Next due" {...field('due')} />
      {equipment.type === 'burette' && (
        <p className="col-span-full text-ink-soft">
          Each volume delivered from the zero mark. Corrections count, linear between the volumes,
          once they reach {figureText(equipment.capacityMl)} mL.
        </p>
      )}
      {volumes.map((volume, i) => (
        <VolumeFields
          key={i}
          place={i}
          equipment={equipment}
          temperature={temperature}
          volume={volume}
          onChange={(changes) => {
            change({ volumes: volumes.with(i, { ...volume, ...changes }) });
          }}
        />
      ))}
    </StockFormFrame>
  );
}

interface VolumeFieldsProps {
  /** Which of the volumes, from 0. */
  readonly place: number;
  readonly equipment: Equipment;
  readonly temperature: string;
  readonly volume: TypedVolume;
  readonly onChange: (changes: Partial<TypedVolume>) => void;
}

/** One volume: what is marked, the masses of water, and what they come to. */
function VolumeFields({ place, equipment, temperature, volume, onChange }: VolumeFieldsProps) {
  const field = fieldsOf(volume, onChange);
  const isBurette = equipment.type === 'burette';
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-x-6 md:grid-cols-3">
      <legend className="sr-only">Volume {place + 1}</legend>
      <QuantityField
        label={isBurette ? 'Delivered from zero to' : 'Volume marked'}
        unit="mL"
        {...field('nominal')}
      />
      <TextAreaField
        label="Net masses of water / g"
        hint={place === 0 ? 'As the balance shows them, one after another.' : undefined}
        rows={isBurette ? 2 : 4}
        {...field('weighings')}
      />
      <div className="self-center">
        <Outcome
          of={compute(volume.nominal, temperature, massesOf(volume.weighings))}
          toleranceMl={toleranceMl(equipment)}
        />
      </div>
    </fieldset>
  );
}

/** What was weighed, as it is sent; volumes without a mass are left out. */
function foundWith(temperature: string, volumes: readonly TypedVolume[]) {
  return {
    kind: 'weighings',
    temperatureC: decimalOf(temperature),
    volumes: volumes
      .map(({ nominal, weighings }) => ({
        nominalMl: decimalOf(nominal),
        weighingsG: massesOf(weighings),
      }))
      .filter(({ weighingsG }) => weighingsG.length > 0),
  } as const;
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

/** A number as it is sent; what is not one stays as it was typed, and is refused with its place. */
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
  const numbers = [nominal, temperature, ...typed].map(numberIn);
  const [nominalMl = NaN, temperatureC = NaN, ...weighingsG] = numbers;
  if (numbers.some(Number.isNaN)) return 'One of the figures is not a number.';
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
        <span className="font-mono">{figureText(really.value)}</span> ±{' '}
        <span className="font-mono">{figureText(really.uncertainty)}</span> mL{' '}
        <span className="text-base font-normal whitespace-nowrap">at 20 °C</span>
      </p>
      <p>
        Off by {figureText(off.value)} mL
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
