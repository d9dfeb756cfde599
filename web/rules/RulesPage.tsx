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
import { Button } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import { fieldMessages, reasonProblem } from '../ui/fieldMessages';
import { TextField } from '../ui/fields';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { ReasonDialog } from '../ui/ReasonDialog';
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
  const [name, setName] = useState(laboratory.name);
  const [isAsking, setAsking] = useState(false);
  return (
    <section className="mt-8 border-t border-rule pt-4">
      <h2 className="mb-2 text-lg font-bold">The laboratory</h2>
      <div className="flex flex-wrap items-end gap-4">
        <div className="w-[min(34rem,100%)]">
          <TextField label="Name" value={name} onText={setName} />
        </div>
        <Button
          disabled={name.trim() === '' || name.trim() === laboratory.name}
          onClick={() => {
            setAsking(true);
          }}
        >
          Rename it…
        </Button>
      </div>
      {isAsking && (
        <ReasonDialog
          title="Rename the laboratory?"
          description={`It will be called ${name.trim()} on labels and pages from now on.`}
          confirm="Rename it"
          onConfirm={(reason) =>
            add.mutateAsync({
              recordId: laboratory.id,
              basedOn: laboratory.version,
              fact: { kind: 'laboratory.renamed', body: { name: name.trim(), reason } },
            })
          }
          onClose={() => {
            setAsking(false);
          }}
        />
      )}
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
  const { laboratory } = useSession();
  const client = useQueryClient();
  const save = useAddToRecord();
  const [typed, setTyped] = useState(() => typedRules(laboratory.rules));
  const [reason, setReason] = useState('');
  const [errors, setErrors] = useState<FieldMessages>({});
  const inForce = typedRules(laboratory.rules);
  const shipped = typedRules(DEFAULT_HOUSE_RULES);
  const isChanged = Object.entries(typed).some(
    ([key, value]) => inForce[key as keyof HouseRules] !== value,
  );
  const differs = Object.entries(typed).some(
    ([key, value]) => shipped[key as keyof HouseRules] !== value,
  );
  const change = (key: keyof HouseRules, value: TypedRule): void => {
    setTyped({ ...typed, [key]: value });
    setErrors({});
  };

  const submit = (): void => {
    const parsed = v.safeParse(houseRulesSchema, ruleValues(typed));
    if (!parsed.success) {
      setErrors(fieldMessages(parsed.issues));
      return;
    }
    const found = checkRules(parsed.output);
    if (found.length > 0) {
      setErrors(Object.fromEntries(found.map((finding) => [finding.field, findingText(finding)])));
      return;
    }
    const problem = reasonProblem(reason);
    if (problem !== undefined) {
      setErrors({ reason: problem });
      return;
    }
    save.mutate(
      {
        fact: {
          kind: 'laboratory.rules-set',
          body: { rules: parsed.output, reason: reason.trim() },
        },
        recordId: laboratory.id,
        basedOn: laboratory.version,
      },
      {
        onSuccess: () => {
          void client.invalidateQueries({ queryKey: ['session'] });
        },
      },
    );
  };

  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      {RULE_GROUPS.map((group) => (
        <fieldset key={group.heading} className="mb-6">
          <legend className="mb-2 text-lg font-bold">{group.heading}</legend>
          <div className="grid grid-cols-1 gap-x-6 gap-y-2 lg:grid-cols-[minmax(0,290px)_minmax(0,350px)_minmax(0,1fr)]">
            {group.rules.map((rule) => (
              <RuleControl
                key={rule.key}
                rule={rule}
                value={typed[rule.key]}
                error={errors[rule.key]}
                onChange={(value) => {
                  change(rule.key, value);
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
        <Button type="submit" look="primary" disabled={!isChanged || save.isPending}>
          Set these rules
        </Button>
        {differs && (
          <Button
            onClick={() => {
              setTyped(shipped);
              setErrors({});
            }}
          >
            As they ship
          </Button>
        )}
        <FormError message={save.error?.message} />
      </div>
    </form>
  );
}
