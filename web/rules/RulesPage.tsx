import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import type { HouseRules } from '#core/laboratory';
import { checkRules, DEFAULT_HOUSE_RULES, RULE_GROUPS, ruleWords } from '#core/laboratory';
import { may } from '#core/rights';
import { houseRulesSchema } from '#contract';
import { findingText } from '#core/wording';
import { useAddToRecord } from '../app/entering';
import { useSession } from '../app/session';
import { Asking } from '../ui/Asking';
import { Button } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import { fieldMessages, reasonProblem } from '../ui/fieldMessages';
import { TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { Page } from '../ui/Page';
import { ReasonDialog } from '../ui/ReasonDialog';
import { CorrectionPresets } from './CorrectionPresets';
import type { TypedRule } from './RuleControl';
import { RuleControl, ruleValues, typedRules } from './RuleControl';

/** The conventions of the laboratory, each with its reason. */
export function RulesPage() {
  const { laboratory, person } = useSession();
  return (
    <Page
      title="House rules"
      tabTitle="House rules"
      lead="Where good laboratories differ. A method may say otherwise, and each run keeps the rules it began with."
    >
      {may(person, 'manage') ? (
        <>
          <RulesForm key={laboratory.version} />
          <RenameLaboratory />
        </>
      ) : (
        <RulesInForce rules={laboratory.rules} />
      )}
    </Page>
  );
}

/** The name on labels and certificates, put right with a reason; what was certified keeps the one it had. */
function RenameLaboratory() {
  const { laboratory } = useSession();
  const add = useAddToRecord();
  const [typed, setTyped] = useState(laboratory.name);
  const name = typed.trim();
  const { id: recordId, version: basedOn } = laboratory;
  return (
    <section className="mt-8 border-t border-rule pt-4">
      <h2 className="mb-2 text-lg font-bold">The laboratory</h2>
      <div className="flex flex-wrap items-end gap-4">
        <div className="w-[min(34rem,100%)]">
          <TextField label="Name" value={typed} onText={setTyped} />
        </div>
        <Asking button="Rename it…" disabled={name === '' || name === laboratory.name}>
          {(close) => (
            <ReasonDialog
              title="Rename the laboratory?"
              description={`It will be called ${name} on labels and pages from now on.`}
              confirm="Rename it"
              onConfirm={(reason) => {
                const fact = { kind: 'laboratory.renamed', body: { name, reason } } as const;
                return add.mutateAsync({ recordId, basedOn, fact });
              }}
              onClose={close}
            />
          )}
        </Asking>
      </div>
    </section>
  );
}

function RulesInForce({ rules }: { readonly rules: HouseRules }) {
  return (
    <>
      {RULE_GROUPS.map((group) => (
        <section key={group.heading} className="mb-6">
          <h2 className="mb-1 text-lg font-bold">{group.heading}</h2>
          <dl className="grid grid-cols-1 gap-x-6 gap-y-2 lg:grid-cols-[minmax(0,300px)_minmax(0,340px)_minmax(0,1fr)]">
            {group.rules.map((rule) => (
              <div key={rule.key} className="contents">
                <dt className="font-semibold">{rule.question}</dt>
                <dd>{ruleWords(rule, rules)}</dd>
                <dd className="text-sm text-ink-soft">{rule.why}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </>
  );
}

function RulesForm() {
  const { rules } = useSession().laboratory;
  const { set, errors, clear, isBusy, error } = useSetting();
  const [typed, setTyped] = useState(() => typedRules(rules));
  const [reason, setReason] = useState('');
  const isChanged = differ(typed, rules);
  const change = (changed: TypedRules): void => {
    setTyped(changed);
    clear();
  };
  return (
    <Form
      onSubmit={() => {
        set(typed, reason);
      }}
    >
      {RULE_GROUPS.map((group) => (
        <fieldset key={group.heading} className="mb-6">
          <legend className="mb-2 text-lg font-bold">{group.heading}</legend>
          {group.rules.some(({ key }) => key === 'volumeCorrection') && (
            <CorrectionPresets
              typed={typed}
              onChoose={(preset) => {
                change({ ...typed, ...preset });
              }}
            />
          )}
          <div className="grid grid-cols-1 gap-x-6 gap-y-2 lg:grid-cols-[minmax(0,290px)_minmax(0,350px)_minmax(0,1fr)]">
            {group.rules.map((rule) => (
              <RuleControl
                key={rule.key}
                rule={rule}
                value={typed[rule.key]}
                error={errors[rule.key]}
                onChange={(value) => {
                  change({ ...typed, [rule.key]: value });
                }}
              />
            ))}
          </div>
        </fieldset>
      ))}
      <div className="sticky bottom-0 -mx-4 flex flex-wrap items-end gap-4 border-t-2 border-ink bg-paper px-4 py-3 md:-mx-8 md:px-8">
        <div className="w-full max-w-[420px]">
          <TextField
            label="Why they change"
            value={reason}
            error={errors.reason}
            disabled={!isChanged}
            onText={setReason}
          />
        </div>
        <FormFoot submit="Set these rules" isDisabled={!isChanged || isBusy} error={error}>
          {differ(typed, DEFAULT_HOUSE_RULES) && (
            <Button
              onClick={() => {
                change(typedRules(DEFAULT_HOUSE_RULES));
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

type TypedRules = Record<keyof HouseRules, TypedRule>;

function differ(typed: TypedRules, rules: HouseRules): boolean {
  const others = typedRules(rules);
  return Object.entries(typed).some(([key, value]) => others[key as keyof HouseRules] !== value);
}

/** Sets the rules of the laboratory; what is wrong is told at each. */
function useSetting() {
  const { laboratory } = useSession();
  const client = useQueryClient();
  const save = useAddToRecord();
  const [errors, setErrors] = useState<FieldMessages>({});
  return {
    errors,
    error: save.error?.message,
    isBusy: save.isPending,
    clear: () => {
      setErrors({});
    },
    set: (typed: TypedRules, reason: string): void => {
      const parsed = v.safeParse(houseRulesSchema, ruleValues(typed));
      const found = parsed.success
        ? Object.fromEntries(checkRules(parsed.output).map((one) => [one.field, findingText(one)]))
        : fieldMessages(parsed.issues);
      const why = reasonProblem(reason);
      const problems = why === undefined ? found : { ...found, reason: why };
      setErrors(problems);
      if (!parsed.success || Object.keys(problems).length > 0) return;
      const body = { rules: parsed.output, reason };
      const { id: recordId, version: basedOn } = laboratory;
      save.mutate(
        { recordId, basedOn, fact: { kind: 'laboratory.rules-set', body } },
        { onSuccess: () => void client.invalidateQueries({ queryKey: ['session'] }) },
      );
    },
  };
}
