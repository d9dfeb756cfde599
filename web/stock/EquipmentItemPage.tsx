import { useState } from 'react';
import { useParams } from 'react-router';
import { addDecimals, figureText, roundToUncertainty } from '#core/measurement';
import type { Calibration, EquipmentState } from '#core/metrology';
import { calibratedBurette, calibratedPointOf, calibrationPoints } from '#core/metrology';
import { may } from '#core/rights';
import { Loading } from '../app/Loading';
import { usePersonName, useRecord } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useSession } from '../app/session';
import { Button, ButtonLink } from '../ui/Button';
import { CorrectionList } from '../ui/CorrectionList';
import { Page } from '../ui/Page';
import { Table } from '../ui/Table';
import { dateText } from '../ui/typeset';
import { HistoryLink } from '../app/HistoryLink';
import { UseSwitch } from '../app/UseSwitch';
import { EquipmentFormOf } from './EquipmentFormOf';
import { CalibrationForm } from './CalibrationForm';
import { GravimetricForm } from './GravimetricForm';

const UNITS_OF = {
  balance: 'g',
  burette: 'mL',
  glassware: 'mL',
  thermometer: '°C',
  heater: '°C',
} as const;

/** One piece of equipment: its calibrations with their points, and whether it is in service. */
export function EquipmentItemPage() {
  const { equipmentId = '' } = useParams();
  const found = useRecord('equipment', equipmentId);
  if (found === undefined) return <Loading />;
  if (found === null) return <NotFound />;
  return <ItemView key={equipmentId} state={found.record} />;
}

type Addition = 'certificate' | 'weighings' | 'correction';

interface ItemProps {
  readonly state: EquipmentState;
}

function ItemView({ state }: ItemProps) {
  const { equipment } = state;
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const [adding, setAdding] = useState<Addition | null>(null);
  return (
    <Page
      title={equipment.name}
      tabTitle={equipment.name}
      lead={
        equipment.calibrationDue === null
          ? 'No calibration is due.'
          : `Calibration due ${dateText(equipment.calibrationDue)}`
      }
      actions={<Ways state={state} onAdd={setAdding} />}
    >
      <AdditionForm
        state={state}
        adding={adding}
        onDone={() => {
          setAdding(null);
        }}
      />
      <Calibrations state={state} />
      <UseSwitch
        kind="equipment"
        id={state.id}
        version={state.version}
        withdrawn={state.withdrawn}
      />
      <HistoryLink of={state.id} />
      <CorrectionList
        corrections={state.corrections}
        nameOf={nameOf}
        timeZone={laboratory.timeZone}
      />
    </Page>
  );
}

/** What can be added to a piece of equipment. */
function Ways({
  state: { equipment },
  onAdd,
}: ItemProps & { readonly onAdd: (addition: Addition) => void }) {
  const { person } = useSession();
  const adding = (addition: Addition) => () => {
    onAdd(addition);
  };
  return (
    <>
      <ButtonLink to="/equipment">All equipment</ButtonLink>
      {may(person, 'register') && <Button onClick={adding('correction')}>Correct it…</Button>}
      <Button onClick={adding('certificate')}>Enter a certificate</Button>
      {(equipment.type === 'glassware' || equipment.type === 'burette') && (
        <Button look="primary" onClick={adding('weighings')}>
          Calibrate with water
        </Button>
      )}
    </>
  );
}

function AdditionForm({
  state,
  adding,
  onDone,
}: ItemProps & { readonly adding: Addition | null; readonly onDone: () => void }) {
  const { type } = state.equipment;
  switch (adding) {
    case null:
      return null;
    case 'certificate':
      return <CalibrationForm state={state} unit={UNITS_OF[type]} onDone={onDone} />;
    case 'weighings':
      return <GravimetricForm state={state} onDone={onDone} />;
    case 'correction':
      return <EquipmentFormOf type={type} corrects={state} onDone={onDone} />;
  }
}

function Calibrations({ state }: ItemProps) {
  return (
    <section className="mb-8">
      <h2 className="mb-2 text-lg font-bold">Calibrations</h2>
      <p className="mb-3 max-w-3xl text-ink-soft">{whatCounts(state)}</p>
      {state.calibrations.toReversed().map((calibration, i) => (
        <CalibrationView
          key={calibration.factId}
          calibration={calibration}
          by={calibration.by}
          unit={UNITS_OF[state.equipment.type]}
          isInForce={i === 0}
        />
      ))}
    </section>
  );
}

/** What of its calibration enters figures from now on. */
function whatCounts(state: EquipmentState): string {
  const { equipment, calibrations } = state;
  if (calibrations.length === 0) {
    return 'None entered: the values it was registered with count.';
  }
  switch (equipment.type) {
    case 'glassware':
      return calibratedPointOf(state)
        ? 'The volume found counts in everything begun with it from now on.'
        : `Not found at ${figureText(equipment.volumeMl)} mL: its tolerance counts.`;
    case 'burette':
      return calibratedBurette(state)?.calibration
        ? 'The corrections count in every titration begun with it from now on, linear between the points.'
        : `The points do not reach ${figureText(equipment.capacityMl)} mL: its tolerance counts.`;
    case 'balance':
      return 'Masses are corrected by it in everything begun from now on, interpolated between the points; beyond them the linearity counts.';
    case 'thermometer':
      return 'Temperatures are corrected by it in everything begun from now on, interpolated between the points.';
    case 'heater':
      return 'Compare the deviations with what the work asks for.';
  }
}

function CalibrationView({
  calibration,
  by,
  unit,
  isInForce,
}: {
  readonly calibration: Calibration;
  readonly by: string;
  readonly unit: string;
  readonly isInForce: boolean;
}) {
  const nameOf = usePersonName();
  const { calibratedOn, certificate, found } = calibration;
  return (
    <article className={`mb-5 max-w-3xl ${isInForce ? '' : 'text-ink-soft'}`}>
      <h3 className="font-bold">
        {dateText(calibratedOn)}: {certificate}
        {isInForce && <span className="ml-2 text-leaf">in force</span>}
      </h3>
      <p className="text-sm">
        Entered by {nameOf(by)}
        {found.kind === 'weighings' &&
          `; water at ${figureText(found.temperatureC)} °C, ${found.volumes.map(({ weighingsG }) => `${weighingsG.map(figureText).join('; ')} g`).join('; ')}`}
      </p>
      <Table
        caption="Points"
        heads={[`Marked / ${unit}`, `Really / ${unit}`, `Off by / ${unit}`, `U (k = 2) / ${unit}`]}
        rows={pointTexts(calibration).map((texts) => ({
          key: texts[0] ?? '',
          cells: texts.map((text, i) => (
            <span key={i} className="font-mono">
              {figureText(text)}
            </span>
          )),
        }))}
      />
    </article>
  );
}

/** Marked, really, off by and U of each point: as a certificate gives them, as many digits of our own as U is worth. */
function pointTexts(calibration: Calibration): readonly (readonly string[])[] {
  if (calibration.found.kind === 'points') {
    return calibration.found.points.map(({ nominal, deviation, expandedUncertainty }) => [
      nominal,
      addDecimals(nominal, deviation),
      deviation,
      expandedUncertainty,
    ]);
  }
  return calibrationPoints(calibration).map(({ nominal, deviation, expandedUncertainty }) => {
    const off = roundToUncertainty(deviation, expandedUncertainty);
    const really = roundToUncertainty(nominal + deviation, expandedUncertainty);
    return [String(nominal), really.value, off.value, off.uncertainty];
  });
}
