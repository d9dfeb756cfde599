import { hazardsOf, hazardsOfLot } from '#core/label';
import type { LotState } from '#core/reagent';
import { useAddToRecord } from '../app/entering';
import { TextAreaField, TextField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { hazardCodesIn } from '../ui/hazardCodes';
import { HazardMarks } from '../ui/HazardMarks';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';

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
  const { codes, unknown } = hazardCodesIn(typed.codes);
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
