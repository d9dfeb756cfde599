import { useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { useState } from 'react';
import type * as v from 'valibot';
import type { HouseRule, Setting } from '#core/laboratory';
import { ruleWords } from '#core/laboratory';
import type { NewFact } from '#contract';
import { useSession } from '../app/session';
import { useWriting } from '../app/useWriting';
import { Button } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import { TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import type { TypedRule } from './RuleControl';
import { RuleControl, typedRules } from './RuleControl';

type Entry = HouseRule | Setting;
type Key<E extends Entry> = E['key'];
type Values<E extends Entry> = Readonly<Record<Key<E>, string | number | boolean>>;
type Typed<E extends Entry> = Record<Key<E>, TypedRule>;

interface Group<E extends Entry> {
  readonly heading: string;
  readonly rules: readonly E[];
}

interface AnswersFormProps<E extends Entry, Checked> {
  readonly groups: readonly Group<E>[];
  readonly values: Values<E>;
  /** What the program ships. */
  readonly shipped: Values<E>;
  readonly submit: string;
  readonly schema: v.GenericSchema<unknown, Checked>;
  /** The typed answers, with what else is on the page, as the schema takes them. */
  readonly writtenOf: (typed: Typed<E>) => object;
  /** The fact that sets them. */
  readonly factOf: (checked: Checked, reason: string) => NewFact;
  /** What else is changed on the page and set with the answers. */
  readonly isMoreChanged?: boolean;
  /** Choices that set several answers of a group at once. */
  readonly above?: (
    group: Group<E>,
    typed: Typed<E>,
    change: (answers: Partial<Typed<E>>) => void,
  ) => ReactNode;
  /** What stands between the answers and the reason, with what is wrong in it. */
  readonly children?: (wrong: FieldMessages) => ReactNode;
}

/** Answers of the laboratory, group by group, set together with a reason. */
export function AnswersForm<E extends Entry, Checked>(props: AnswersFormProps<E, Checked>) {
  const { groups, values, shipped, submit, writtenOf, factOf, isMoreChanged = false } = props;
  const { write, errors, clear, isBusy, error } = useSetting(props.schema);
  const [typed, setTyped] = useState<Typed<E>>(() => typedOf(groups, values));
  const [reason, setReason] = useState('');
  const isChanged = isMoreChanged || differ(typed, typedOf(groups, values));
  const change = (answers: Partial<Typed<E>>): void => {
    setTyped({ ...typed, ...answers });
    clear();
  };
  return (
    <Form
      onSubmit={() => {
        write(writtenOf(typed), reason, (checked) => factOf(checked, reason));
      }}
    >
      {groups.map((group) => (
        <fieldset key={group.heading} className="mb-6">
          <legend className="mb-2 text-lg font-bold">{group.heading}</legend>
          {props.above?.(group, typed, change)}
          <div className="grid grid-cols-1 gap-x-6 gap-y-2 lg:grid-cols-[minmax(0,290px)_minmax(0,350px)_minmax(0,1fr)]">
            {group.rules.map((rule) => (
              <RuleControl
                key={rule.key}
                rule={rule}
                value={typed[rule.key as Key<E>]}
                error={errors[rule.key]}
                onChange={(value) => {
                  change({ [rule.key]: value } as Partial<Typed<E>>);
                }}
              />
            ))}
          </div>
        </fieldset>
      ))}
      {props.children?.(errors)}
      <div
        data-stays=""
        className="sticky bottom-0 -mx-4 flex flex-wrap items-end gap-4 border-t-2 border-ink bg-paper px-4 py-3 md:-mx-8 md:px-8"
      >
        <div className="w-full max-w-[420px]">
          <TextField
            label="Why they change"
            value={reason}
            error={errors.reason}
            disabled={!isChanged}
            onText={setReason}
          />
        </div>
        <FormFoot submit={submit} isDisabled={!isChanged || isBusy} error={error}>
          {differ(typed, typedOf(groups, shipped)) && (
            <Button
              onClick={() => {
                change(typedOf(groups, shipped));
              }}
            >
              As they ship
            </Button>
          )}
        </FormFoot>
      </div>
    </Form>
  );
}

/** The answers as they are, for those who may not change them. */
export function AnswersInForce<E extends Entry>({
  groups,
  values,
}: Pick<AnswersFormProps<E, unknown>, 'groups' | 'values'>) {
  return (
    <>
      {groups.map((group) => (
        <section key={group.heading} className="mb-6">
          <h2 className="mb-1 text-lg font-bold">{group.heading}</h2>
          <dl className="grid grid-cols-1 gap-x-6 gap-y-2 lg:grid-cols-[minmax(0,300px)_minmax(0,340px)_minmax(0,1fr)]">
            {group.rules.map((rule) => (
              <div key={rule.key} className="contents">
                <dt className="font-semibold">{rule.question}</dt>
                <dd>{ruleWords(rule, values)}</dd>
                <dd className="text-sm text-ink-soft">{rule.why}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </>
  );
}

/** The answers of these groups as a form holds them. */
function typedOf<E extends Entry>(groups: readonly Group<E>[], values: Values<E>): Typed<E> {
  const keys = groups.flatMap(({ rules }) => rules.map(({ key }) => key as Key<E>));
  const asked = Object.fromEntries(keys.map((key) => [key, values[key]]));
  return typedRules(asked) as Typed<E>;
}

function differ<E extends Entry>(typed: Typed<E>, others: Typed<E>): boolean {
  return Object.entries(typed).some(([key, value]) => others[key as Key<E>] !== value);
}

/** Sets what the laboratory answers; what is wrong is told at each, and below all of them what is wrong at none. */
function useSetting<Checked>(schema: v.GenericSchema<unknown, Checked>) {
  const { laboratory } = useSession();
  const client = useQueryClient();
  const { found, refused, error, ...rest } = useWriting({
    record: laboratory,
    schema,
    fieldOf: (path) => path,
    onWritten: () => void client.invalidateQueries({ queryKey: ['session'] }),
  });
  return {
    ...rest,
    errors: { ...refused, ...found },
    error: Object.keys(refused).length > 0 ? undefined : error,
  };
}
