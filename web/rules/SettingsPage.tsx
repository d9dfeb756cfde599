import { useState } from 'react';
import type { OwnKeeping } from '#core/laboratory';
import { DEFAULT_SETTINGS, SETTING_GROUPS } from '#core/laboratory';
import { may } from '#core/rights';
import { settingsSchema } from '#contract';
import { useCatalogue } from '../app/ownEntries';
import { useSession } from '../app/session';
import { SmallButton } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import { QuantityField, SelectField } from '../ui/fields';
import { numberIn } from '../ui/numberIn';
import { Page } from '../ui/Page';
import { AnswersForm, AnswersInForce } from './AnswersForm';
import { LetterheadSection } from './LetterheadSection';
import { ruleValues } from './RuleControl';

/** How the program works for this laboratory; no result follows from it. */
export function SettingsPage() {
  const { laboratory, person } = useSession();
  return (
    <Page
      title="Settings"
      tabTitle="Settings"
      lead="Hours, times, reminders and the look of dates. No result follows from them; what does is a house rule."
    >
      {may(person, 'manage') ? (
        <>
          <SettingsForm key={laboratory.version} />
          <LetterheadSection />
        </>
      ) : (
        <>
          <AnswersInForce groups={SETTING_GROUPS} values={laboratory.settings} />
          <KeepingInForce />
        </>
      )}
    </Page>
  );
}

/** One line of the times that solutions keep, as it is typed. */
interface TypedKeeping {
  readonly substanceId: string;
  readonly days: string;
}

function typedKeeping(keeping: readonly OwnKeeping[]): readonly TypedKeeping[] {
  return keeping.map(({ substanceId, days }) => ({ substanceId, days: String(days) }));
}

function SettingsForm() {
  const { settings } = useSession().laboratory;
  const [keeping, setKeeping] = useState(() => typedKeeping(settings.keeping));
  return (
    <AnswersForm
      groups={SETTING_GROUPS}
      values={settings}
      shipped={DEFAULT_SETTINGS}
      submit="Set them"
      isMoreChanged={JSON.stringify(keeping) !== JSON.stringify(typedKeeping(settings.keeping))}
      schema={settingsSchema}
      writtenOf={(typed) => ({
        ...ruleValues(typed),
        keeping: keeping.map((one) => ({ ...one, days: numberIn(one.days) })),
      })}
      factOf={(set, reason) => ({
        kind: 'laboratory.settings-set',
        body: { settings: set, reason },
      })}
    >
      {(wrong) => <KeepingFields keeping={keeping} wrong={wrong} onChange={setKeeping} />}
    </AnswersForm>
  );
}

/** Substances whose solutions have a time to keep, in the order of their names. */
function useKept(): readonly { readonly id: string; readonly name: string }[] {
  const { keeping, substances } = useCatalogue();
  return substances
    .filter(({ id }) => keeping.some(({ substanceId }) => substanceId === id))
    .toSorted((a, b) => a.name.localeCompare(b.name));
}

interface KeepingFieldsProps {
  readonly keeping: readonly TypedKeeping[];
  readonly wrong: FieldMessages;
  readonly onChange: (keeping: readonly TypedKeeping[]) => void;
}

/** How long solutions keep in this laboratory, where that is not what the catalogue says. */
function KeepingFields({ keeping, wrong, onChange }: KeepingFieldsProps) {
  const kept = useKept();
  const others = kept.filter(({ id }) => !keeping.some((one) => one.substanceId === id));
  return (
    <fieldset className="mb-6">
      <legend className="mb-1 text-lg font-bold">How long solutions keep here</legend>
      <p className="mb-2 max-w-2xl text-sm text-ink-soft">
        Until a titrant is standardized again and a standard is renewed, instead of what the
        catalogue says. Your own standardizations are the best reason: how far the molarity moved,
        in how many days. What is certified for longer asks for a reason.
      </p>
      <ul className="flex max-w-2xl flex-col gap-2">
        {keeping.map((one, i) => {
          const name = kept.find(({ id }) => id === one.substanceId)?.name ?? one.substanceId;
          return (
            <li key={one.substanceId} className="flex flex-wrap items-end gap-3">
              <div className="w-full max-w-[360px]">
                <QuantityField
                  label={`Solutions of ${name}`}
                  unit="days"
                  value={one.days}
                  error={wrong[`keeping.${String(i)}.days`]}
                  onText={(days) => {
                    onChange(keeping.map((other) => (other === one ? { ...one, days } : other)));
                  }}
                />
              </div>
              <SmallButton
                onClick={() => {
                  onChange(keeping.filter((other) => other !== one));
                }}
              >
                As the catalogue says<span className="sr-only"> for {name}</span>
              </SmallButton>
            </li>
          );
        })}
      </ul>
      {others.length > 0 && (
        <div className="mt-2 max-w-[360px]">
          <SelectField
            label="Another solution"
            value=""
            options={[['', 'choose'], ...others.map(({ id, name }) => [id, name] as const)]}
            onText={(substanceId) => {
              if (substanceId !== '') onChange([...keeping, { substanceId, days: '' }]);
            }}
          />
        </div>
      )}
    </fieldset>
  );
}

function KeepingInForce() {
  const { keeping } = useSession().laboratory.settings;
  const kept = useKept();
  if (keeping.length === 0) return null;
  return (
    <section className="mb-6">
      <h2 className="mb-1 text-lg font-bold">How long solutions keep here</h2>
      <ul>
        {keeping.map(({ substanceId, days }) => (
          <li key={substanceId}>
            {kept.find(({ id }) => id === substanceId)?.name ?? substanceId}: {days} days
          </li>
        ))}
      </ul>
    </section>
  );
}
