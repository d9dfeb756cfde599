import { useState } from 'react';
import { useParams } from 'react-router';
import { roundToUncertainty } from '#core/measurement';
import type { Calibration, EquipmentState } from '#core/metrology';
import { calibrationPoints } from '#core/metrology';
import { Loading } from '../app/Loading';
import { usePersonName, useRecords } from '../app/records';
import { NotFound } from '../app/RouteError';
import { Button, ButtonLink } from '../ui/Button';
import { Page } from '../ui/Page';
import { Table } from '../ui/Table';
import { dateText } from '../ui/typeset';
import { UseSwitch } from '../ui/UseSwitch';
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
  const { equipmentId } = useParams();
  const equipment = useRecords('equipment');
  if (!equipment) return <Loading />;
  const state = equipment.find(({ id }) => id === equipmentId);
  if (!state) return <NotFound />;
  return <ItemView key={state.id} state={state} />;
}

function ItemView({ state }: { readonly state: EquipmentState }) {
  const { equipment, calibrations } = state;
  const [adding, setAdding] = useState<'certificate' | 'weighings' | null>(null);
  const holdsWater = equipment.type === 'glassware' || equipment.type === 'burette';
  const done = (): void => {
    setAdding(null);
  };
  return (
    <Page
      title={equipment.name}
      tabTitle={equipment.name}
      lead={
        equipment.calibrationDue === null
          ? 'No calibration is due.'
          : `Calibration due ${dateText(equipment.calibrationDue)}`
      }
      actions={
        <>
          <ButtonLink to="/equipment">All equipment</ButtonLink>
          <Button
            onClick={() => {
              setAdding('certificate');
            }}
          >
            Enter a certificate
          </Button>
          {holdsWater && (
            <Button
              look="primary"
              onClick={() => {
                setAdding('weighings');
              }}
            >
              Calibrate with water
            </Button>
          )}
        </>
      }
    >
      {adding === 'certificate' && (
        <CalibrationForm state={state} unit={UNITS_OF[equipment.type]} onDone={done} />
      )}
      {adding === 'weighings' && <GravimetricForm state={state} onDone={done} />}
      <section className="mb-8">
        <h2 className="mb-2 text-lg font-bold">Calibrations</h2>
        {calibrations.length === 0 && (
          <p className="text-ink-soft">
            None entered: what counts is the tolerance that it was registered with.
          </p>
        )}
        {calibrations.toReversed().map((calibration, i) => (
          <CalibrationView
            key={calibration.factId}
            calibration={calibration}
            by={calibration.by}
            unit={UNITS_OF[equipment.type]}
            isInForce={i === 0}
          />
        ))}
      </section>
      <UseSwitch
        kind="equipment"
        id={state.id}
        version={state.version}
        withdrawn={state.withdrawn}
      />
    </Page>
  );
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
          `; water at ${found.temperatureC} °C, ${found.volumes.map(({ weighingsG }) => `${weighingsG.join(', ')} g`).join('; ')}`}
      </p>
      <Table
        caption="Points"
        heads={[`Marked / ${unit}`, `Really / ${unit}`, `Off by / ${unit}`, `U (k = 2) / ${unit}`]}
        rows={calibrationPoints(calibration).map(({ nominal, deviation, expandedUncertainty }) => {
          const off = roundToUncertainty(deviation, expandedUncertainty);
          const really = roundToUncertainty(nominal + deviation, expandedUncertainty);
          return {
            key: String(nominal),
            cells: [String(nominal), really.value, off.value, off.uncertainty].map((text, i) => (
              <span key={i} className="font-mono">
                {text}
              </span>
            )),
          };
        })}
      />
    </article>
  );
}
