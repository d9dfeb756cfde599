import type { ReactNode } from 'react';
import { useState } from 'react';
import { findSubstance } from '#core/chemistry';
import type { PlainDate } from '#core/grammar';
import { figureText, roundSignificant } from '#core/measurement';
import type { LotState } from '#core/reagent';
import { isLotExpired, lotMolarMass, purityText } from '#core/reagent';
import { may } from '#core/rights';
import { Loading } from '../app/Loading';
import { useRecordList } from '../app/lists';
import { PagedTable } from '../app/PagedTable';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { ListSearch } from '../ui/ListSearch';
import { Page } from '../ui/Page';
import { CellLink } from '../ui/Table';
import { ChemicalFormula, dateText } from '../ui/typeset';
import { LotForm } from './LotForm';
import { leftText } from './wording';

/** Substances as received: standards and what titrants are made from. */
export function LotsPage() {
  const { person, today } = useSession();
  const [search, setSearch] = useState('');
  const list = useRecordList('lot', { order: 'newest', search });
  const [isAdding, setAdding] = useState(false);
  if (!list) return <Loading />;
  const { records: lots, left } = list;
  const isFormShown = isAdding || (lots.length === 0 && search === '');
  return (
    <Page
      title="Lots"
      tabTitle="Lots"
      lead="Lots received: primary standards, and what titrants are made from"
      actions={
        may(person, 'register') &&
        !isFormShown && (
          <Button
            look="primary"
            onClick={() => {
              setAdding(true);
            }}
          >
            Add a lot
          </Button>
        )
      }
    >
      {isFormShown && (
        <LotForm
          onDone={() => {
            setAdding(false);
          }}
        />
      )}
      {(lots.length > 0 || search !== '') && (
        <>
          <div className="mb-3">
            <ListSearch
              label="Find a lot"
              by="substance, number, supplier, store"
              onSearch={setSearch}
            />
          </div>
          <PagedTable
            list={list}
            one="lot"
            many="lots"
            caption="Lots"
            heads={['Substance', 'Lot', 'Purity', 'M / (g/mol)', 'Left', 'Store', 'Use by']}
            rows={lots.map((state) => ({
              key: state.id,
              cells: cellsOf(state, left[state.id], today),
            }))}
          />
        </>
      )}
    </Page>
  );
}

function cellsOf(
  state: LotState,
  left: number | undefined,
  today: PlainDate,
): readonly ReactNode[] {
  const { id, lot } = state;
  const substance = findSubstance(lot.substanceId, lot.own);
  return [
    <span key="s">
      <b>{substance?.name}</b> <ChemicalFormula of={substance?.formula ?? ''} />
    </span>,
    <CellLink key="l" to={`/lots/${id}`} className="font-mono font-semibold lg:whitespace-nowrap">
      {lot.lotNumber}
    </CellLink>,
    <span key="p" className="font-mono lg:whitespace-nowrap">
      {purityText(lot)}
    </span>,
    <span key="m" className="font-mono">
      {figureText(roundSignificant(lotMolarMass(lot).valueGPerMol, 7))}
    </span>,
    <span key="a" className="lg:whitespace-nowrap">
      {leftText(lot, left)}
    </span>,
    lot.store,
    <UseBy key="u" state={state} today={today} />,
  ];
}

/** Until when it may be used, or that it may not any more. */
function UseBy({
  state: { lot, withdrawn },
  today,
}: {
  readonly state: LotState;
  readonly today: PlainDate;
}) {
  if (withdrawn) return <b className="text-blush">on hold</b>;
  if (lot.useBy === null) return 'none';
  const day = dateText(lot.useBy);
  return isLotExpired(lot, today) ? <b className="text-blush">expired {day}</b> : day;
}
