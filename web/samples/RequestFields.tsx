import type { Analysis } from '#core/chemistry';
import { CATALOGUE, partsOf, RESULT_UNITS } from '#core/chemistry';
import type { Plain } from '#core/grammar';
import type { Requirement, SampleRequest } from '#core/sample';
import { DECISION_RULES, RULE_WORDS } from '#core/sample';
import { Button } from '../ui/Button';
import {
  asOptionalQuantity,
  asQuantity,
  CheckField,
  optionsOf,
  QuantityField,
  SelectField,
} from '../ui/fields';
import type { SampleFields } from './useSampleForm';

/** A request for the first analysis, as that is usually stated. */
export function emptyRequest(
  analysis: Analysis | undefined = CATALOGUE.analyses[0],
): Plain<SampleRequest> {
  return {
    analysisId: analysis?.id ?? '',
    unit: analysis?.units[0] ?? 'mol/L',
    as: analysis?.statedAs[0]?.formula ?? null,
    expected: null,
    requirement: { kind: 'none' },
  };
}

/** Which analysis, as what and in which unit it is stated, what is expected and what it is held against. */
export function RequestFields({
  at,
  analyses,
  onRemove,
  ...sample
}: SampleFields & {
  readonly at: `requests.${number}`;
  readonly analyses: readonly Analysis[];
  readonly onRemove: () => void;
}) {
  const { form, field, errorAt } = sample;
  const { analysisId, unit, requirement, onDryMatter, part: partId } = form.watch(at);
  const analysis = analyses.find(({ id }) => id === analysisId);
  const parts = analysis ? partsOf(analysis) : [];
  const { statedAs = [] } = parts.find(({ id }) => id === partId) ?? analysis ?? {};
  return (
    <div className="mb-4 grid grid-cols-1 gap-x-6 gap-y-3 border-l-4 border-rule pl-4 md:grid-cols-3">
      <div className="md:col-span-2">
        <SelectField
          label="Analysis"
          hint={analysis?.remark}
          options={optionsOf(analyses, ({ name }) => name)}
          value={analysisId}
          error={errorAt(`${at}.analysisId`)}
          onText={(id) => {
            form.setValue(at, emptyRequest(analyses.find((one) => one.id === id)));
          }}
        />
      </div>
      <div className="flex items-start md:justify-end md:pt-7">
        <Button className="text-[15px]" onClick={onRemove}>
          Leave it out
        </Button>
      </div>
      {/* Made anew for another analysis: a list that keeps one of its entries would keep that chosen. */}
      <SelectField
        key={`unit of ${analysisId}`}
        label="Unit"
        options={(analysis?.units ?? []).map((one) => [one, one])}
        {...field(`${at}.unit`)}
      />
      {parts.length > 0 && (
        <SelectField
          key={`part of ${analysisId}`}
          label="Which part"
          hint="The others are stated beside it."
          options={[[WHOLE, 'all of it'], ...new Map(parts.map(({ id, name }) => [id, name]))]}
          value={partId ?? WHOLE}
          onText={(chosen) => {
            const { part: _before, ...request } = form.getValues(at);
            const part = parts.find(({ id }) => id === chosen);
            const as = (part ?? analysis)?.statedAs[0]?.formula ?? null;
            form.setValue(at, part ? { ...request, part: part.id, as } : { ...request, as });
          }}
        />
      )}
      {statedAs.length > 0 && (
        <SelectField
          key={`as of ${analysisId}/${partId ?? WHOLE}`}
          label="As"
          options={statedAs.map(({ formula, name }) => [formula, name])}
          {...field(`${at}.as`)}
        />
      )}
      {form.watch('dryMatter') && RESULT_UNITS[unit].quantity === 'mass-fraction' && (
        <CheckField
          label="In dry matter"
          checked={onDryMatter === true}
          onTick={(isTicked) => {
            form.setValue(`${at}.onDryMatter`, isTicked);
          }}
        />
      )}
      <QuantityField
        label="Expected"
        unit={unit}
        hint="Empty if nobody knows."
        {...field(`${at}.expected`, asOptionalQuantity)}
      />
      <SelectField
        label="Held against"
        value={requirement.kind}
        options={KINDS}
        onText={(kind) => {
          form.setValue(`${at}.requirement`, emptyRequirement(kind));
        }}
      />
      <RequirementFields
        {...sample}
        at={`${at}.requirement`}
        unit={unit}
        requirement={requirement}
      />
    </div>
  );
}

/** The choice of no part. */
const WHOLE = 'whole';

const KINDS = [
  ['none', 'nothing'],
  ['limits', 'limits'],
  ['label-claim', 'the claim of a label'],
  ['accepted-value', 'an accepted value'],
] as const;

function emptyRequirement(kind: string): Plain<Requirement> {
  switch (kind) {
    case 'limits':
      return { kind, lower: null, upper: null, rule: 'simple' };
    case 'label-claim':
      return { kind, claim: '', window: null };
    case 'accepted-value':
      return { kind, value: '', expandedUncertainty: null, withinPercent: null };
    default:
      return { kind: 'none' };
  }
}

function RequirementFields({
  form,
  field,
  errorAt,
  at,
  unit,
  requirement,
}: SampleFields & {
  readonly at: `requests.${number}.requirement`;
  readonly unit: string;
  readonly requirement: Plain<Requirement>;
}) {
  switch (requirement.kind) {
    case 'none':
      return null;
    case 'limits':
      return (
        <>
          <QuantityField
            label="At least"
            unit={unit}
            hint="Empty if open."
            {...field(`${at}.lower`, asOptionalQuantity)}
            {...(errorAt(at) !== undefined && { error: errorAt(at) })}
          />
          <QuantityField
            label="At most"
            unit={unit}
            hint="Empty if open."
            {...field(`${at}.upper`, asOptionalQuantity)}
          />
          <div className="md:col-span-2">
            <SelectField
              label="Decided"
              hint="Agreed before the measurement, and printed with the result."
              options={DECISION_RULES.map((rule) => [rule, RULE_WORDS[rule]])}
              {...field(`${at}.rule`)}
            />
          </div>
        </>
      );
    case 'label-claim':
      return (
        <>
          <QuantityField label="Claim" unit={unit} {...field(`${at}.claim`, asQuantity)} />
          <CheckField
            label="A window is allowed"
            checked={requirement.window !== null}
            onTick={(isTicked) => {
              form.setValue(`${at}.window`, isTicked ? { fromPercent: '', toPercent: '' } : null);
            }}
          />
          {requirement.window && (
            <>
              <QuantityField
                label="From"
                unit="% of it"
                {...field(`${at}.window.fromPercent`, asQuantity)}
              />
              <QuantityField
                label="To"
                unit="% of it"
                {...field(`${at}.window.toPercent`, asQuantity)}
              />
            </>
          )}
        </>
      );
    case 'accepted-value':
      return (
        <>
          <QuantityField label="Accepted value" unit={unit} {...field(`${at}.value`, asQuantity)} />
          <QuantityField
            label="Its U, k = 2"
            unit={unit}
            hint="Empty if none is stated."
            {...field(`${at}.expandedUncertainty`, asOptionalQuantity)}
          />
          <QuantityField
            label="Allowed error"
            unit="%"
            hint="Empty if nothing is set."
            {...field(`${at}.withinPercent`, asOptionalQuantity)}
          />
        </>
      );
  }
}
