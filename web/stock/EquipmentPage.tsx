import type { ReactNode } from 'react';
import { useState } from 'react';
import type { Equipment, EquipmentState } from '#core/metrology';
import { isCalibrationOverdue } from '#core/metrology';
import { Loading } from '../app/Loading';
import { useRecords } from '../app/records';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { Page } from '../ui/Page';
import { Table } from '../ui/Table';
import { dateText } from '../ui/typeset';
import { BalanceForm } from './BalanceForm';
import { BuretteForm } from './BuretteForm';
import { GlasswareForm } from './GlasswareForm';

/** Balances and burettes with the figures of their certificates. */
export function EquipmentPage() {
  const { today } = useSession();
  const equipment = useRecords('equipment');
  const [adding, setAdding] = useState<Equipment['type'] | null>(null);
  if (!equipment) return <Loading />;
  const done = (): void => {
    setAdding(null);
  };
  return (
    <Page
      title="Equipment"
      tabTitle="Equipment"
      lead="What the measurement equation rests on: balances, burettes, flasks and pipettes"
      actions={
        <>
          <Button
            onClick={() => {
              setAdding('balance');
            }}
          >
            Add a balance
          </Button>
          <Button
            onClick={() => {
              setAdding('burette');
            }}
          >
            Add a burette
          </Button>
          <Button
            onClick={() => {
              setAdding('glassware');
            }}
          >
            Add glassware
          </Button>
        </>
      }
    >
      {adding === 'balance' && <BalanceForm onDone={done} />}
      {adding === 'burette' && <BuretteForm onDone={done} />}
      {adding === 'glassware' && <GlasswareForm onDone={done} />}
      <Section title="Balances" empty="No balance yet: add the one that weighs your standards.">
        {balanceRows(equipment, today)}
      </Section>
      <Section title="Burettes" empty="No burette yet: add the one that you titrate with.">
        {buretteRows(equipment, today)}
      </Section>
      <Section
        title="Flasks, pipettes, cylinders"
        empty="No glassware yet: plans choose from what is here."
      >
        {glasswareRows(equipment, today)}
      </Section>
    </Page>
  );
}

function Section({
  title,
  empty,
  children,
}: {
  readonly title: string;
  readonly empty: string;
  readonly children: ReactNode;
}) {
  return (
    <section className="mb-8">
      <h2 className="mb-1 text-lg font-bold">{title}</h2>
      {children ?? <p className="text-ink-soft">{empty}</p>}
    </section>
  );
}

/** The pieces of one type, each with the id of its record. */
function ofType<T extends Equipment['type']>(equipment: readonly EquipmentState[], type: T) {
  type Item = Extract<Equipment, { type: T }>;
  return equipment
    .filter((state) => state.equipment.type === type)
    .map((state) => ({ id: state.id, item: state.equipment as Item }));
}

function balanceRows(equipment: readonly EquipmentState[], today: string): ReactNode {
  const balances = ofType(equipment, 'balance');
  if (balances.length === 0) return null;
  return (
    <Table
      caption="Balances"
      heads={['Name', 'Readability', 'Repeatability', 'Linearity', 'Maximum', 'Calibration']}
      rows={balances.map(({ id, item }) => ({
        key: id,
        cells: [
          <b key="n">{item.name}</b>,
          `${item.readabilityG} g`,
          `${item.repeatabilityG} g`,
          `± ${item.linearityG} g`,
          `${item.maxLoadG} g`,
          <Due key="d" item={item} today={today} />,
        ],
      }))}
    />
  );
}

function buretteRows(equipment: readonly EquipmentState[], today: string): ReactNode {
  const burettes = ofType(equipment, 'burette');
  if (burettes.length === 0) return null;
  return (
    <Table
      caption="Burettes"
      heads={['Name', 'Kind', 'Division', 'Tolerance', 'Drop', 'Calibration']}
      rows={burettes.map(({ id, item }) => ({
        key: id,
        cells: [
          <b key="n">{item.name}</b>,
          `${item.construction}, ${item.capacityMl} mL`,
          `${item.divisionMl} mL`,
          `± ${item.toleranceMl} mL`,
          `${item.dropMl} mL`,
          <Due key="d" item={item} today={today} />,
        ],
      }))}
    />
  );
}

const KINDS = {
  'volumetric-flask': 'volumetric flask',
  'one-mark-pipette': 'pipette',
  'measuring-cylinder': 'cylinder',
} as const;

function glasswareRows(equipment: readonly EquipmentState[], today: string): ReactNode {
  const glassware = ofType(equipment, 'glassware');
  if (glassware.length === 0) return null;
  return (
    <Table
      caption="Flasks, pipettes, cylinders"
      heads={['Name', 'Kind', 'Volume', 'Tolerance', 'Calibration']}
      rows={glassware.map(({ id, item }) => ({
        key: id,
        cells: [
          <b key="n">{item.name}</b>,
          KINDS[item.kind],
          `${item.volumeMl} mL`,
          `± ${item.toleranceMl} mL`,
          <Due key="d" item={item} today={today} />,
        ],
      }))}
    />
  );
}

function Due({ item, today }: { readonly item: Equipment; readonly today: string }) {
  if (item.calibrationDue === null) return 'no due date';
  const date = dateText(item.calibrationDue);
  return isCalibrationOverdue(item, today) ? (
    <b className="text-blush">was due {date}</b>
  ) : (
    `due ${date}`
  );
}
