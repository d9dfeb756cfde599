import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Method } from '#core/chemistry';
import { moleRatioOfMethod } from '#core/chemistry';
import { figureText, roundSignificant } from '#core/measurement';
import { Unanswerable } from '#core/problem';
import type { RecordVersion } from '#core/record';
import { methodSchema } from '#contract';
import { useCatalogue, useOwn } from '../app/ownEntries';
import { newRecord, useWriting } from '../app/useWriting';
import type { FieldMessages } from '../ui/fieldMessages';
import {
  CheckField,
  optionsOf,
  QuantityField,
  SelectField,
  TextAreaField,
  TextField,
} from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { fieldsOf, useTyped } from '../ui/useTyped';
import { ColourFields } from './ColourFields';
import { OverrideFields } from './OverrideFields';
import { PartnerFields } from './PartnerFields';
import { PortionFields } from './PortionFields';
import type { TypedMethod } from './typedMethod';
import { linesOf, typedMethod, writtenMethod } from './typedMethod';

interface MethodFormProps {
  /** What is copied or changed. */
  readonly method: Method;
  /** A method of the laboratory's own that gets a new version; null for a copy. */
  readonly record: RecordVersion | null;
}

/** A method as it is written; its reaction is balanced while it is typed. */
export function MethodForm({ method, record }: MethodFormProps) {
  const [fresh] = useState(newRecord);
  const { write, errors, isBusy, error } = useWritingMethod(record ?? fresh);
  const { typed, field, part } = useTyped(() => typedMethod(method, record !== null), errors);
  const own = useOwn();
  const { indicators } = useCatalogue();
  return (
    <Form
      className="grid max-w-[1040px] grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2"
      onSubmit={() => {
        write(writtenMethod(method, typed, own), typed.reason);
      }}
    >
      <TextField label="Name" {...field('name')} />
      <SelectField
        label="Indicator"
        options={[
          ['', 'none: the titrant shows the end point'],
          ...optionsOf(indicators, ({ name }) => name),
        ]}
        {...field('indicatorId')}
      />
      <PartnerFields
        {...part('partners')}
        hasLinks={linesOf(typed.equations).length > 1}
        errors={errors}
      />
      <TextAreaField
        label="Reaction, a line for each step"
        hint={<Ratio method={writtenMethod(method, typed, own)} />}
        {...field('equations')}
      />
      <TextAreaField label="Medium and what is added" {...field('medium')} />
      <FlaskFields {...part('inFlask')} errors={errors} />
      <ColourFields {...part('colours')} />
      <PortionFields {...part('portions')} mayWeigh={typed.partners.inBurette === 'titrant'} />
      <OverrideFields {...part('rules')} errors={errors} />
      <TextAreaField label="Cautions, a line each" rows={3} {...field('cautions')} />
      <TextAreaField
        label={record ? 'What changes, and why' : 'Why it is written'}
        rows={3}
        {...field('reason')}
      />
      <FormFoot
        submit={record ? 'Write this version' : 'Write this method'}
        isDisabled={isBusy}
        error={error}
      />
    </Form>
  );
}

/** Writes a method, or a version of one, and goes back to the list. */
function useWritingMethod(record: RecordVersion) {
  const navigate = useNavigate();
  const { found, refused, write, ...rest } = useWriting({
    record,
    schema: methodSchema,
    fieldOf: fieldOfMethod,
    onWritten: () => void navigate('/methods'),
  });
  const { equations } = refused;
  return {
    ...rest,
    errors: equations === undefined ? found : { equations, ...found },
    write: (written: object, reason: string): void => {
      write(written, reason, (method) => ({ kind: 'method.written', body: { method, reason } }));
    },
  };
}

/** `equations` for `equations.1`, a rule for `rules.rinses`. */
function fieldOfMethod(path: string): string {
  const [first = '', second = ''] = path.split('.');
  return first === 'rules' ? second : first;
}

interface FlaskFieldsProps {
  readonly value: TypedMethod['inFlask'];
  readonly errors: FieldMessages;
  readonly onChange: (inFlask: TypedMethod['inFlask']) => void;
}

/** The indicator's drops, how hot the flask is kept, and whether a blank is titrated. */
function FlaskFields({ value, errors, onChange }: FlaskFieldsProps) {
  const field = fieldsOf(value, (changes) => {
    onChange({ ...value, ...changes });
  });
  return (
    <>
      <div className="grid grid-cols-1 gap-4 md:grid-cols-3">
        <QuantityField label="Drops" {...field('drops')} error={errors.indicatorDrops} />
        <QuantityField
          label="Flask from"
          unit="°C"
          {...field('low')}
          error={errors.flaskTemperatureC}
        />
        <QuantityField label="to" unit="°C" {...field('high')} />
      </div>
      <CheckField
        label="With a blank"
        hint="The medium takes titrant itself."
        checked={value.needsBlank}
        onTick={(needsBlank) => {
          onChange({ ...value, needsBlank });
        }}
      />
    </>
  );
}

/** What the reaction as typed comes to, or why it does not. */
function Ratio({ method }: { readonly method: Method }) {
  const ratio = ratioOf(method);
  return ratio instanceof Unanswerable ? (
    <span className="text-blush">{ratio.message}</span>
  ) : (
    <>
      Balances: {figureText(roundSignificant(ratio, 4))} mol of titrant for each mole of standard.
    </>
  );
}

function ratioOf(method: Method): number | Unanswerable {
  try {
    return moleRatioOfMethod(method);
  } catch (error) {
    if (error instanceof Unanswerable) return error;
    throw error;
  }
}
