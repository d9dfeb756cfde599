import { figureText } from '#core/measurement';
import type { ReactNode } from 'react';
import { useState } from 'react';
import type { PlainDate } from '#core/grammar';
import type { Equipment, EquipmentState } from '#core/metrology';
import { isCalibrationOverdue } from '#core/metrology';
import { may } from '#core/rights';
import { Loading } from '../app/Loading';
import { useRecordList } from '../app/lists';
import { OnlyWhatWasRead } from '../app/NotAllHere';
import { useSession } from '../app/session';
import { ListFoot } from '../ui/ListFoot';
import { Menu, MenuItem } from '../ui/Menu';
import { Page } from '../ui/Page';
import { EquipmentFormOf } from './EquipmentFormOf';
import { CellLink, Table } from '../ui/Table';
import { dateText } from '../ui/typeset';

const ADDABLE = [
  { type: 'balance', name: 'A balance' },
  { type: 'burette', name: 'A burette, of glass or with a piston' },
  { type: 'glassware', name: 'A flask, a pipette, a cylinder' },
  { type: 'thermometer', name: 'A thermometer' },
  { type: 'heater', name: 'A hot plate, an oven' },
] as const satisfies readonly { type: Equipment['type']; name: string }[];

/** Balances, glassware and the rest with the figures of their certificates. */
export function EquipmentPage() {
  const { person, today } = useSession();
  const mayRegister = may(person, 'register');
  const list = useRecordList('equipment', { order: 'name' });
  const [adding, setAdding] = useState<Equipment['type'] | null>(null);
  if (!list) return <Loading />;
  const equipment = list.records;
  const done = (): void => {
    setAdding(null);
  };
  return (
    <Page
      title="Equipment"
      tabTitle="Equipment"
      lead="Balances and vessels that the figures rest on, and what heats"
      actions={
        mayRegister && (
          <Menu button="Add equipment…" look="primary">
            {ADDABLE.map(({ type, name }) => (
              <MenuItem
                key={type}
                onSelect={() => {
                  setAdding(type);
                }}
              >
                {name}
              </MenuItem>
            ))}
          </Menu>
        )
      }
    >
      <OnlyWhatWasRead />
      {adding && <EquipmentFormOf key={adding} type={adding} onDone={done} />}
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
      <Section
        title="Thermometers, hot plates, ovens"
        empty="None yet: a day's plan takes one hot plate and one oven."
      >
        {otherRows(equipment, today)}
      </Section>
      <ListFoot shown={equipment.length} what="equipment" {...list} />
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
    .map((state) => ({ state, id: state.id, item: state.equipment as Item }));
}

function balanceRows(equipment: readonly EquipmentState[], today: PlainDate): ReactNode {
  const balances = ofType(equipment, 'balance');
  if (balances.length === 0) return null;
  return (
    <Table
      caption="Balances"
      heads={['Name', 'Readability', 'Repeatability', 'Linearity', 'Maximum', 'Calibration']}
      rows={balances.map(({ id, item, state }) => ({
        key: id,
        cells: [
          <Name key="n" state={state} />,
          `${figureText(item.readabilityG)} g`,
          `${figureText(item.repeatabilityG)} g`,
          `± ${figureText(item.linearityG)} g`,
          `${figureText(item.maxLoadG)} g`,
          <Due key="d" item={item} today={today} />,
        ],
      }))}
    />
  );
}

function buretteRows(equipment: readonly EquipmentState[], today: PlainDate): ReactNode {
  const burettes = ofType(equipment, 'burette');
  if (burettes.length === 0) return null;
  return (
    <Table
      caption="Burettes"
      heads={['Name', 'Kind', 'Division', 'Tolerance', 'Drop', 'Calibration']}
      rows={burettes.map(({ id, item, state }) => ({
        key: id,
        cells: [
          <Name key="n" state={state} />,
          `${item.construction}, ${figureText(item.capacityMl)} mL`,
          `${figureText(item.divisionMl)} mL`,
          `± ${figureText(item.toleranceMl)} mL`,
          `${figureText(item.dropMl)} mL`,
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

function glasswareRows(equipment: readonly EquipmentState[], today: PlainDate): ReactNode {
  const glassware = ofType(equipment, 'glassware');
  if (glassware.length === 0) return null;
  return (
    <Table
      caption="Flasks, pipettes, cylinders"
      heads={['Name', 'Kind', 'Volume', 'Tolerance', 'Calibration']}
      rows={glassware.map(({ id, item, state }) => ({
        key: id,
        cells: [
          <Name key="n" state={state} />,
          KINDS[item.kind],
          `${figureText(item.volumeMl)} mL`,
          `± ${figureText(item.toleranceMl)} mL`,
          <Due key="d" item={item} today={today} />,
        ],
      }))}
    />
  );
}

function otherRows(equipment: readonly EquipmentState[], today: PlainDate): ReactNode {
  const rows = [
    ...ofType(equipment, 'thermometer').map(({ state, item }) => ({
      state,
      what: 'thermometer',
      figures: `reads to ${figureText(item.resolutionK)} K, ± ${figureText(item.toleranceK)} K`,
    })),
    ...ofType(equipment, 'heater').map(({ state, item }) => ({
      state,
      what: item.kind === 'oven' ? 'oven' : 'hot plate',
      figures: `to ${figureText(item.maxTemperatureC)} °C`,
    })),
  ];
  if (rows.length === 0) return null;
  return (
    <Table
      caption="Thermometers, hot plates, ovens"
      heads={['Name', 'Kind', 'Figures', 'Calibration']}
      rows={rows.map(({ state, what, figures }) => ({
        key: state.id,
        cells: [
          <Name key="n" state={state} />,
          what,
          figures,
          <Due key="d" item={state.equipment} today={today} />,
        ],
      }))}
    />
  );
}

/** The name leads to the piece itself. */
function Name({ state }: { readonly state: EquipmentState }) {
  return (
    <>
      <CellLink to={`/equipment/${state.id}`} className="font-bold">
        {state.equipment.name}
      </CellLink>
      {state.withdrawn && <b className="ml-2 text-blush">out of service</b>}
    </>
  );
}

function Due({ item, today }: { readonly item: Equipment; readonly today: PlainDate }) {
  if (item.calibrationDue === null) return 'no due date';
  const date = dateText(item.calibrationDue);
  return isCalibrationOverdue(item, today) ? (
    <b className="text-blush">was due {date}</b>
  ) : (
    `due ${date}`
  );
}
