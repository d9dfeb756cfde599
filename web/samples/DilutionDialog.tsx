import { useState } from 'react';
import { figureText } from '#core/measurement';
import { isPipette } from '#core/metrology';
import type { EquipmentState } from '#core/metrology';
import type { SampleState } from '#core/sample';
import { useAddToRecord } from '../app/entering';
import { useRecords } from '../app/records';
import { reasonOrNull } from '../ui/fieldMessages';
import { optionsOf, SelectField, TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { messagesOf } from '../ui/refusal';
import { useTyped } from '../ui/useTyped';

/** Writes down a dilution: which pipette, made up to the mark of which flask. */
export function DilutionDialog({
  state,
  onClose,
}: {
  readonly state: SampleState;
  readonly onClose: () => void;
}) {
  const add = useAddToRecord();
  const equipment = (useRecords('equipment') ?? []).filter(({ withdrawn }) => !withdrawn);
  const pipettes = equipment.filter((one) => isPipette(one.equipment));
  const flasks = equipment.filter(
    (one) => one.equipment.type === 'glassware' && one.equipment.kind === 'volumetric-flask',
  );
  const [pipetteId, setPipetteId] = useState<string>();
  const [flaskId, setFlaskId] = useState<string>();
  const errors = messagesOf(add.error);
  const { typed, field } = useTyped({ reason: '' }, errors);
  const pipette = pipettes.find(({ id }) => id === pipetteId) ?? pipettes[0];
  const flask = flasks.find(({ id }) => id === flaskId) ?? flasks[0];
  if (!pipette || !flask) {
    return (
      <FormDialog
        title="Dilute"
        description="A dilution takes a pipette and a volumetric flask: add them to the equipment first."
        submit="Close"
        onSubmit={onClose}
        onClose={onClose}
      >
        {null}
      </FormDialog>
    );
  }
  return (
    <FormDialog
      title={state.dilutions.length === 0 ? 'Dilute the sample' : 'Dilute the last dilution'}
      description="The result is always that of the original: the factor is carried into it, with the uncertainty of both vessels."
      submit="It is diluted"
      error={add.error?.message}
      onSubmit={() => {
        const at = ({ id, version }: typeof pipette) => ({ id, version });
        const body = { pipette: at(pipette), flask: at(flask), reason: reasonOrNull(typed.reason) };
        const fact = { kind: 'sample.diluted', body } as const;
        add.mutate({ recordId: state.id, basedOn: state.version, fact }, { onSuccess: onClose });
      }}
      onClose={onClose}
    >
      <SelectField
        label="Pipette"
        options={optionsOf(pipettes, nameOf)}
        value={pipette.id}
        error={errors.pipette}
        onText={setPipetteId}
      />
      <SelectField
        label="Made up to the mark of"
        options={optionsOf(flasks, nameOf)}
        value={flask.id}
        error={errors.flask}
        onText={setFlaskId}
      />
      {add.error && <TextAreaField label="Why it goes on all the same" {...field('reason')} />}
    </FormDialog>
  );
}

/** A vessel with what it holds. */
function nameOf({ equipment }: EquipmentState): string {
  return equipment.type === 'glassware'
    ? `${equipment.name}, ${figureText(equipment.volumeMl)} mL`
    : equipment.name;
}
