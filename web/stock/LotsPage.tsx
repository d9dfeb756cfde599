import { useState } from 'react';
import { findSubstance } from '#core/chemistry';
import { roundSignificant } from '#core/measurement';
import { isLotExpired, lotMolarMass } from '#core/reagent';
import { Loading } from '../app/Loading';
import { useRecords } from '../app/records';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { Page } from '../ui/Page';
import { Table } from '../ui/Table';
import { ChemicalFormula, dateText } from '../ui/typeset';
import { LotForm } from './LotForm';

/** Substances as received: standards and what titrants are made from. */
export function LotsPage() {
  const { today } = useSession();
  const lots = useRecords('lot');
  const [isAdding, setAdding] = useState(false);
  if (!lots) return <Loading />;
  const isFormShown = isAdding || lots.length === 0;
  return (
    <Page
      title="Substances"
      tabTitle="Substances"
      lead="Lots received: primary standards, and what titrants are made from"
      actions={
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
      {lots.length > 0 && (
        <Table
          caption="Lots"
          heads={['Substance', 'Lot', 'Supplier', 'Purity', 'M / (g/mol)', 'Use by']}
          rows={lots.map(({ id, lot }) => {
            const substance = findSubstance(lot.substanceId);
            return {
              key: id,
              cells: [
                <span key="s">
                  <b>{substance?.name}</b> <ChemicalFormula of={substance?.formula ?? ''} />
                </span>,
                <span key="l" className="font-mono">
                  {lot.lotNumber}
                </span>,
                lot.supplier,
                <span key="p" className="font-mono">
                  {lot.purity} ± {lot.purityHalfWidth}
                </span>,
                <span key="m" className="font-mono">
                  {roundSignificant(lotMolarMass(lot).valueGPerMol, 7)}
                </span>,
                isLotExpired(lot, today) ? (
                  <b key="u" className="text-blush">
                    expired {dateText(lot.useBy ?? today)}
                  </b>
                ) : lot.useBy === null ? (
                  'none'
                ) : (
                  dateText(lot.useBy)
                ),
              ],
            };
          })}
        />
      )}
    </Page>
  );
}
