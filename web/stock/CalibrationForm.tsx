import { useFieldArray } from 'react-hook-form';
import type { PlainDate } from '#core/grammar';
import type { EquipmentState } from '#core/metrology';
import { calibrationSchema } from '#contract';
import { useAddToRecord } from '../app/entering';
import { useSession } from '../app/session';
import { FormDateField } from '../ui/FormDateField';
import { Button } from '../ui/Button';
import { asQuantity, QuantityField, TextField } from '../ui/fields';
import { useContractForm } from '../ui/useContractForm';
import { CalibrationDueField } from './equipmentForm';
import { StockFormFrame } from './StockFormFrame';

interface CalibrationFormProps {
  readonly state: EquipmentState;
  readonly unit: string;
  readonly onDone: () => void;
}

/** Enters the points of a calibration certificate. */
export function CalibrationForm({ state, unit, onDone }: CalibrationFormProps) {
  const { today } = useSession();
  const add = useAddToRecord();
  const { form, field, showFailure, formError } = useCalibration(today);
  const points = useFieldArray({ control: form.control, name: 'found.points' });
  return (
    <StockFormFrame
      name="A calibration certificate"
      submit="Keep the calibration"
      isBusy={add.isPending}
      error={formError}
      onDone={onDone}
      onSubmit={form.handleSubmit((body) => {
        add.mutate(
          {
            recordId: state.id,
            basedOn: state.version,
            fact: { kind: 'equipment.calibrated', body },
          },
          { onSuccess: onDone, onError: showFailure },
        );
      })}
    >
      <FormDateField label="Calibrated on" control={form.control} name="calibratedOn" />
      <CalibrationDueField control={form.control} name="due" />
      <TextField label="Certificate" hint="Number, and who made it." {...field('certificate')} />
      {points.fields.map(({ id }, i) => (
        <PointFields key={id} i={i} unit={unit} field={field} />
      ))}
      <div className="col-span-full">
        <Button
          className="px-4 text-[15px]"
          onClick={() => {
            points.append(EMPTY_POINT);
          }}
        >
          Another point
        </Button>
      </div>
    </StockFormFrame>
  );
}

function useCalibration(today: PlainDate) {
  return useContractForm(calibrationSchema, {
    calibratedOn: today,
    due: null,
    certificate: '',
    found: { kind: 'points', points: [EMPTY_POINT] },
  });
}

/** One point of the certificate: what is shown, how far that is off, and how sure one is of it. */
function PointFields({
  i,
  unit,
  field,
}: {
  readonly i: number;
  readonly unit: string;
  readonly field: ReturnType<typeof useCalibration>['field'];
}) {
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-x-6 md:grid-cols-3">
      <legend className="sr-only">Point {i + 1}</legend>
      <QuantityField
        label="Marked or shown"
        unit={unit}
        {...field(pathTo(i, 'nominal'), asQuantity)}
      />
      <QuantityField
        label="True value minus that"
        unit={unit}
        {...field(pathTo(i, 'deviation'), asQuantity)}
      />
      <QuantityField
        label="U (k = 2)"
        unit={unit}
        {...field(pathTo(i, 'expandedUncertainty'), asQuantity)}
      />
    </fieldset>
  );
}

const EMPTY_POINT = { nominal: '', deviation: '', expandedUncertainty: '' };

/** The name of a field of one point. */
function pathTo<K extends keyof typeof EMPTY_POINT>(i: number, key: K) {
  return `found.points.${String(i)}.${key}` as `found.points.${number}.${K}`;
}
