import { useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import * as v from 'valibot';
import type { Method } from '#core/chemistry';
import { CATALOGUE, findMethod, moleRatioOfMethod } from '#core/chemistry';
import { parseDecimal, roundSignificant } from '#core/measurement';
import { Unanswerable } from '#core/problem';
import type { Id } from '#core/grammar';
import { methodSchema } from '#contract';
import { Loading } from '../app/Loading';
import { Refusal } from '../ui/refusal';
import { useAddToRecord, useBeginRecord } from '../app/entering';
import { useRecords } from '../app/records';
import { Button } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import { fieldMessages, reasonProblem } from '../ui/fieldMessages';
import { CheckField, QuantityField, SelectField, TextAreaField, TextField } from '../ui/fields';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { ColourFields } from './ColourFields';
import type { TypedOverrides } from './OverrideFields';
import { OverrideFields } from './OverrideFields';
import { PartnerFields, partnersOf, typedPartners } from './PartnerFields';
import { PortionFields, portionsOf, typedPortions } from './PortionFields';
import { ruleValues, typedRules } from './RuleControl';

/** Writing a method of the laboratory's own: a copy of one that ships, or a new version of one's own. */
export function MethodPage() {
  const { methodId } = useParams();
  const [search] = useSearchParams();
  const own = useRecords('method');
  if (!own) return <Loading />;
  const known = own.find(({ id }) => id === methodId);
  const method = known?.method ?? findMethod(search.get('from') ?? '');
  return (
    <Page
      title={known ? `Change “${known.method.name}”` : 'A method of your own'}
      tabTitle="Method"
      lead={
        known
          ? `Version ${String(known.written.length + 1)}. Runs that began with an earlier one keep it.`
          : 'What you change here is yours; the method that ships stays as it is.'
      }
    >
      {method ? (
        <MethodForm
          method={method}
          record={known ? { id: known.id, version: known.version } : null}
        />
      ) : (
        <p className="text-lg">There is no such method to begin with.</p>
      )}
    </Page>
  );
}

/** The field of the form at a path of the method: `equations` for `equations.1`, the rule for `rules.rinses`. */
function fieldAt(path: string): string {
  const [first = '', second = ''] = path.split('.');
  return first === 'rules' ? second : first;
}

function lines(text: string): string[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
}

interface MethodFormProps {
  readonly method: Method;
  readonly record: { readonly id: Id; readonly version: number } | null;
}

function MethodForm({ method, record }: MethodFormProps) {
  const navigate = useNavigate();
  const begin = useBeginRecord();
  const add = useAddToRecord();
  const [name, setName] = useState(record ? method.name : `${method.name}, our way`);
  const [equations, setEquations] = useState(method.equations.join('\n'));
  const [indicatorId, setIndicatorId] = useState(method.indicatorId ?? '');
  const [drops, setDrops] = useState(method.indicatorDrops?.toString() ?? '');
  const [medium, setMedium] = useState(method.medium);
  const [low, setLow] = useState(method.flaskTemperatureC?.[0].toString() ?? '');
  const [high, setHigh] = useState(method.flaskTemperatureC?.[1].toString() ?? '');
  const [needsBlank, setNeedsBlank] = useState(method.needsBlank);
  const [cautions, setCautions] = useState(method.cautions.join('\n'));
  const [colours, setColours] = useState(method.colours);
  const [partners, setPartners] = useState(() => typedPartners(method));
  const [portions, setPortions] = useState(() => typedPortions(method));
  const [rules, setRules] = useState<TypedOverrides>(() => typedRules(method.rules));
  const [reason, setReason] = useState('');
  const [errors, setErrors] = useState<FieldMessages>({});
  const number = (typed: string): number | null => {
    const text = parseDecimal(typed);
    return text === null ? null : Number(text);
  };
  const written = {
    ...method,
    ...partnersOf(partners),
    name: name.trim(),
    equations: lines(equations),
    indicatorId: indicatorId === '' ? null : indicatorId,
    indicatorDrops: number(drops),
    medium: medium.trim(),
    flaskTemperatureC: low === '' && high === '' ? null : [number(low) ?? 0, number(high) ?? 0],
    needsBlank,
    colours,
    portions: portionsOf(portions),
    cautions: lines(cautions),
    rules: ruleValues(rules),
  };
  const error = begin.error ?? add.error;
  const failure = error instanceof Refusal ? error : null;

  const submit = (): void => {
    const parsed = v.safeParse(methodSchema, written);
    if (!parsed.success) {
      const messages = Object.entries(fieldMessages(parsed.issues));
      setErrors(Object.fromEntries(messages.map(([path, text]) => [fieldAt(path), text])));
      return;
    }
    const problem = reasonProblem(reason);
    if (problem !== undefined) {
      setErrors({ reason: problem });
      return;
    }
    setErrors({});
    const fact = {
      kind: 'method.written' as const,
      body: { method: parsed.output, reason: reason.trim() },
    };
    const onSuccess = (): void => {
      void navigate('/methods');
    };
    if (record) add.mutate({ fact, recordId: record.id, basedOn: record.version }, { onSuccess });
    else begin.mutate(fact, { onSuccess });
  };

  return (
    <form
      noValidate
      className="grid max-w-[1040px] grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <TextField label="Name" value={name} error={errors.name} onText={setName} />
      <SelectField
        label="Indicator"
        value={indicatorId}
        error={errors.indicatorId}
        onText={setIndicatorId}
      >
        <option value="">none: the titrant shows the end point</option>
        {CATALOGUE.indicators.map(({ id, name: indicator }) => (
          <option key={id} value={id}>
            {indicator}
          </option>
        ))}
      </SelectField>
      <PartnerFields
        partners={partners}
        hasLinks={lines(equations).length > 1}
        errors={errors}
        onChange={setPartners}
      />
      <TextAreaField
        label="Reaction, a line for each step"
        hint={
          <Ratio method={{ ...method, ...partnersOf(partners), equations: lines(equations) }} />
        }
        value={equations}
        error={errors.equations ?? failure?.fieldMessage('equations')}
        onText={setEquations}
      />
      <TextAreaField
        label="Medium and what is added"
        value={medium}
        error={errors.medium}
        onText={setMedium}
      />
      <div className="grid grid-cols-1 gap-4 md:grid-cols-3">
        <QuantityField
          label="Drops"
          value={drops}
          error={errors.indicatorDrops}
          onText={setDrops}
        />
        <QuantityField
          label="Flask from"
          unit="°C"
          value={low}
          error={errors.flaskTemperatureC}
          onText={setLow}
        />
        <QuantityField label="to" unit="°C" value={high} onText={setHigh} />
      </div>
      <CheckField
        label="With a blank"
        hint="The medium takes titrant itself."
        checked={needsBlank}
        onChange={(event) => {
          setNeedsBlank(event.target.checked);
        }}
      />
      <ColourFields colours={colours} error={errors.colours} onChange={setColours} />
      <PortionFields
        portions={portions}
        mayWeigh={partners.inBurette === 'titrant'}
        error={errors.portions}
        onChange={setPortions}
      />
      <OverrideFields overrides={rules} errors={errors} onChange={setRules} />
      <TextAreaField
        label="Cautions, a line each"
        rows={3}
        value={cautions}
        error={errors.cautions}
        onText={setCautions}
      />
      <TextAreaField
        label={record ? 'What changes, and why' : 'Why it is written'}
        rows={3}
        value={reason}
        error={errors.reason}
        onText={setReason}
      />
      <div className="col-span-full flex items-center gap-4">
        <Button type="submit" look="primary" disabled={begin.isPending || add.isPending}>
          {record ? 'Write this version' : 'Write this method'}
        </Button>
        <FormError message={error?.message} />
      </div>
    </form>
  );
}

/** What the reaction as typed comes to, or why it does not. */
function Ratio({ method }: { readonly method: Method }) {
  const ratio = ratioOf(method);
  return ratio instanceof Unanswerable ? (
    <span className="text-blush">{ratio.message}</span>
  ) : (
    <>Balances: {roundSignificant(ratio, 4)} mol of titrant for each mole of standard.</>
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
