import type { Analysis, OwnEntry, Performance } from '#core/chemistry';
import { CATALOGUE } from '#core/chemistry';
import type { RecordVersion } from '#core/record';
import { naming, useCatalogue, useOwn } from '../app/ownEntries';
import { optionsOf, QuantityField, SelectField, TextAreaField, TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { numberIn } from '../ui/numberIn';
import { fieldsOf, useTyped } from '../ui/useTyped';
import { figureOf, numberOrNull } from './typedFigures';
import { useWritingEntry } from './useWritingEntry';

type OwnAnalysis = Extract<OwnEntry, { readonly kind: 'analysis' }>;

/** An analysis as its form holds it. */
interface TypedAnalysis {
  readonly name: string;
  readonly indicatorId: string;
  readonly drops: string;
  readonly medium: string;
  readonly portions: readonly { readonly low: string; readonly high: string }[];
  readonly typical: string;
  readonly targetU: string;
  readonly performance: Readonly<Record<keyof Performance, string>>;
  readonly remark: string;
  readonly source: string;
  readonly reason: string;
}

/** The range of a portion, g or mL. */
function rangeOf(portion: Analysis['portions'][number]): readonly [number, number] {
  return portion.kind === 'weighed' ? portion.massG : portion.volumeMl;
}

function typedAnalysis({ analysis }: OwnAnalysis): TypedAnalysis {
  const { performance } = analysis;
  return {
    name: analysis.name,
    indicatorId: analysis.indicatorId ?? '',
    drops: figureOf(analysis.indicatorDrops),
    medium: analysis.medium,
    portions: analysis.portions.map((portion) => {
      const [low, high] = rangeOf(portion);
      return { low: figureOf(low), high: figureOf(high) };
    }),
    typical: figureOf(analysis.typical),
    targetU: figureOf(analysis.targetUPercent),
    performance: {
      methodUncertaintyPercent: figureOf(performance?.methodUncertaintyPercent),
      repeatabilityPercent: figureOf(performance?.repeatabilityPercent),
      detectionLimit: figureOf(performance?.detectionLimit),
      quantificationLimit: figureOf(performance?.quantificationLimit),
    },
    remark: analysis.remark,
    source: analysis.source,
    reason: '',
  };
}

/** The same as an entry holds it, under the id of its record; what the form does not show stays. */
function writtenAnalysis({ analysis }: OwnAnalysis, typed: TypedAnalysis, id: string) {
  const { own: _, ...kept } = analysis;
  const { performance } = typed;
  return {
    kind: 'analysis' as const,
    analysis: {
      ...kept,
      id,
      name: typed.name.trim(),
      indicatorId: typed.indicatorId === '' ? null : typed.indicatorId,
      indicatorDrops: numberOrNull(typed.drops),
      medium: typed.medium.trim(),
      portions: analysis.portions.map((portion, i) => {
        const { low = '', high = '' } = typed.portions[i] ?? {};
        const range = [numberIn(low), numberIn(high)] as const;
        return portion.kind === 'weighed'
          ? { kind: portion.kind, massG: range }
          : { kind: portion.kind, volumeMl: range };
      }),
      typical: numberIn(typed.typical),
      targetUPercent: numberIn(typed.targetU),
      performance: {
        methodUncertaintyPercent: numberOrNull(performance.methodUncertaintyPercent),
        repeatabilityPercent: numberOrNull(performance.repeatabilityPercent),
        detectionLimit: numberOrNull(performance.detectionLimit),
        quantificationLimit: numberOrNull(performance.quantificationLimit),
      },
      remark: typed.remark.trim(),
      source: typed.source.trim(),
    },
  };
}

interface AnalysisFormProps {
  /** What is copied or changed. */
  readonly entry: OwnAnalysis;
  readonly record: RecordVersion;
}

/** An analysis of the laboratory's own: how it is done here, what it aims at, and how well it is known to be done. */
export function AnalysisForm({ entry, record }: AnalysisFormProps) {
  const { write, errors, isBusy, error } = useWritingEntry(record, 'analysis');
  const { typed, field, change, part } = useTyped(() => typedAnalysis(entry), errors);
  const { indicators } = useCatalogue();
  const own = useOwn();
  const [unit = ''] = entry.analysis.units;
  return (
    <Form
      className="grid max-w-[1040px] grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2"
      onSubmit={() => {
        write(
          writtenAnalysis(entry, typed, record.id),
          naming(own, [typed.indicatorId, ...entry.analysis.titrantIds]),
          typed.reason,
        );
      }}
    >
      <TextField label="Name" {...field('name')} />
      <TextField label="Remark" hint="Shown where it is chosen." {...field('remark')} />
      <SelectField
        label="Indicator"
        options={[
          ['', 'none: the titrant or an electrode shows the end point'],
          ...optionsOf(indicators, ({ name }) => name),
        ]}
        {...field('indicatorId')}
      />
      <QuantityField label="Drops" {...field('drops')} error={errors.indicatorDrops} />
      <TextAreaField label="Medium and what is added" {...field('medium')} />
      <div className="flex flex-col gap-3">
        {entry.analysis.portions.map((portion, i) => (
          <div key={portion.kind} className="grid grid-cols-2 gap-3">
            {(['low', 'high'] as const).map((end) => (
              <QuantityField
                key={end}
                label={`${portion.kind === 'weighed' ? 'Mass' : 'Volume'} ${end === 'low' ? 'from' : 'to'}`}
                unit={portion.kind === 'weighed' ? 'g' : 'mL'}
                value={typed.portions[i]?.[end] ?? ''}
                error={errors.portions}
                onText={(text) => {
                  const before = typed.portions[i] ?? { low: '', high: '' };
                  change({ portions: typed.portions.with(i, { ...before, [end]: text }) });
                }}
              />
            ))}
          </div>
        ))}
      </div>
      <QuantityField label="Such samples usually hold" unit={unit} {...field('typical')} />
      <QuantityField
        label="It aims at U of"
        unit="% of the content"
        {...field('targetU')}
        error={errors.targetUPercent}
      />
      <PerformanceFields {...part('performance')} unit={unit} />
      <TextAreaField label="Where it comes from" {...field('source')} />
      <TextAreaField
        label={record.version > 0 ? 'What changes, and why' : 'Why it is written'}
        {...field('reason')}
      />
      <FormFoot
        submit={record.version > 0 ? 'Write this version' : 'Write this analysis'}
        isDisabled={isBusy}
        error={error}
      />
    </Form>
  );
}

/** What the laboratory knows of how well it does it. */
function PerformanceFields({
  value,
  error,
  unit,
  onChange,
}: {
  readonly value: TypedAnalysis['performance'];
  readonly error: string | undefined;
  readonly unit: string;
  readonly onChange: (value: TypedAnalysis['performance']) => void;
}) {
  const field = fieldsOf(value, (changes) => {
    onChange({ ...value, ...changes });
  });
  return (
    <fieldset className="col-span-full grid grid-cols-1 gap-x-8 gap-y-3 border-l-4 border-rule pl-4 sm:grid-cols-2 xl:grid-cols-4">
      <legend className="mb-1 font-bold">From the laboratory’s own data</legend>
      <QuantityField
        label="u of the method"
        unit="%"
        hint="Long-term scatter of a control, bias or recovery, sub-sampling; without the repeatability of the titration."
        {...field('methodUncertaintyPercent')}
        error={error}
      />
      <QuantityField
        label="Repeatability limit r"
        unit="%"
        hint="Two results that differ by more ask for two further ones."
        {...field('repeatabilityPercent')}
      />
      <QuantityField
        label="Limit of detection"
        unit={unit}
        hint="3.3 u of the net titre at zero, and never below a drop."
        {...field('detectionLimit')}
      />
      <QuantityField
        label="Limit of quantification"
        unit={unit}
        hint="10 u."
        {...field('quantificationLimit')}
      />
    </fieldset>
  );
}

/** What a form begins with that copies nothing: the first of those that ship, for its reaction. */
export function firstAnalysis(): OwnAnalysis {
  const [analysis] = CATALOGUE.analyses;
  if (!analysis) throw new RangeError('the catalogue has analyses');
  return { kind: 'analysis', analysis: { ...analysis, name: `${analysis.name}, ours` } };
}
