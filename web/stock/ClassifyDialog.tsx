import type { HazardCode } from '#core/chemistry';
import { HAZARD_STATEMENTS } from '#core/chemistry';
import { hazardsOf, hazardsOfLot } from '#core/label';
import type { LotState } from '#core/reagent';
import { useAddToRecord } from '../app/entering';
import { TextAreaField, TextField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { HazardMarks } from '../ui/HazardMarks';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';

/** Statements as somebody types them, `H314, H290`: those that are known, and the rest. */
function readCodes(typed: string): {
  readonly codes: readonly HazardCode[];
  readonly unknown: readonly string[];
} {
  const words = typed.split(/[\s,;]+/).filter((word) => word !== '');
  const isCode = (word: string): word is HazardCode => word in HAZARD_STATEMENTS;
  return {
    codes: [...new Set(words.filter(isCode))],
    unknown: words.filter((word) => !isCode(word)),
  };
}

interface ClassifyDialogProps {
  readonly state: LotState;
  readonly onClose: () => void;
}

/** Takes the hazards of a lot from its own safety data sheet, in place of those of the catalogue. */
export function ClassifyDialog({ state, onClose }: ClassifyDialogProps) {
  const add = useAddToRecord();
  const now = hazardsOfLot(state);
  const { typed, field } = useTyped(
    {
      codes: now.statements.map(({ code }) => code).join(', '),
      sheet: state.classified?.sheet ?? '',
    },
    messagesOf(add.error),
  );
  const { codes, unknown } = readCodes(typed.codes);
  return (
    <FormDialog
      title="Hazards by its safety data sheet"
      description="They take the place of those of the catalogue, for this lot alone."
      submit="Take them from the sheet"
      error={
        unknown.length > 0
          ? `Not a hazard statement that is known here: ${unknown.join(', ')}.`
          : add.error?.message
      }
      onSubmit={() => {
        if (unknown.length > 0) return;
        const fact = { kind: 'lot.classified', body: { codes, sheet: typed.sheet } } as const;
        add.mutate({ recordId: state.id, basedOn: state.version, fact }, { onSuccess: onClose });
      }}
      onClose={onClose}
    >
      <TextAreaField
        label="Hazard statements"
        hint="Their codes, such as H290 and EUH071. Empty where the sheet states none."
        {...field('codes')}
      />
      <TextField label="Safety data sheet" hint="Its maker, number or date." {...field('sheet')} />
      <HazardMarks of="As on the sheet" hazards={hazardsOf(codes)} isSourceSaid />
    </FormDialog>
  );
}
