import { useState } from 'react';
import { DEFAULT_HOUSE_RULES, RULE_GROUPS } from '#core/laboratory';
import { may } from '#core/rights';
import { houseRulesSchema } from '#contract';
import { useAddToRecord } from '../app/entering';
import { useSession } from '../app/session';
import { AskingWhy } from '../ui/AskingWhy';
import { TextField } from '../ui/fields';
import { Page } from '../ui/Page';
import { AnswersForm, AnswersInForce } from './AnswersForm';
import { CorrectionPresets } from './CorrectionPresets';
import { ruleValues } from './RuleControl';

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
          <AnswersForm
            key={laboratory.version}
            groups={RULE_GROUPS}
            values={laboratory.rules}
            shipped={DEFAULT_HOUSE_RULES}
            submit="Set these rules"
            schema={houseRulesSchema}
            writtenOf={ruleValues}
            factOf={(rules, reason) => ({ kind: 'laboratory.rules-set', body: { rules, reason } })}
            above={(group, typed, change) =>
              group.rules.some(({ key }) => key === 'volumeCorrection') && (
                <CorrectionPresets typed={typed} onChoose={change} />
              )
            }
          />
          <RenameLaboratory />
        </>
      ) : (
        <AnswersInForce groups={RULE_GROUPS} values={laboratory.rules} />
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
        <AskingWhy
          button="Rename it…"
          disabled={name === '' || name === laboratory.name}
          question={{
            title: 'Rename the laboratory?',
            description: `It will be called ${name} on labels and pages from now on.`,
            confirm: 'Rename it',
            onConfirm: (reason) => {
              const fact = { kind: 'laboratory.renamed', body: { name, reason } } as const;
              return add.mutateAsync({ recordId, basedOn, fact });
            },
          }}
        />
      </div>
    </section>
  );
}
