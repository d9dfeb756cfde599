import { useParams } from 'react-router';
import { findSubstance } from '#core/chemistry';
import { freshnessOf } from '#core/reagent';
import { Loading } from '../app/Loading';
import { usePersonName, useRecords } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useSession } from '../app/session';
import { Button, ButtonLink } from '../ui/Button';
import { Page } from '../ui/Page';
import { ChemicalFormula, dateText } from '../ui/typeset';

/** The label of a bottle, 90 by 54 mm; printing the page prints the label alone. */
export function LabelPage() {
  const { bottleId } = useParams();
  const { today, laboratory } = useSession();
  const bottles = useRecords('bottle');
  const lots = useRecords('lot');
  const nameOf = usePersonName();
  if (!bottles || !lots) return <Loading />;
  const bottle = bottles.find(({ id }) => id === bottleId);
  if (!bottle) return <NotFound />;
  const freshness = freshnessOf(bottle, today);
  const substance = findSubstance(bottle.substanceId);
  const lot = lots.find(({ id }) => id === bottle.lotId)?.lot;
  const certified = freshness.kind === 'not-standardized' ? null : freshness.certified;
  return (
    <div className="print:[&_header]:hidden">
      <Page
        title={`Label of bottle ${bottle.code}`}
        tabTitle={`Label ${bottle.code}`}
        lead="90 × 54 mm, shown larger here. Print it without fitting it to the page."
        actions={
          <>
            <ButtonLink to={`/bottles/${bottle.id}`}>To the bottle</ButtonLink>
            <Button
              look="primary"
              onClick={() => {
                window.print();
              }}
            >
              Print
            </Button>
          </>
        }
      >
        <article className="flex h-[54mm] w-[90mm] origin-top-left scale-[1.7] flex-col border border-ink bg-white p-[3mm] text-[3.2mm] leading-tight text-black print:scale-100">
          <div className="flex items-baseline justify-between border-b border-black pb-[1mm]">
            <p className="text-[5.4mm] font-bold">
              <ChemicalFormula of={substance?.formula ?? ''} />{' '}
              <span className="text-[3.6mm] font-semibold">{substance?.name}</span>
            </p>
            <p className="font-mono text-[4.6mm] font-semibold">{bottle.code}</p>
          </div>
          <p className="mt-[2mm] text-[6mm] whitespace-nowrap">
            {certified ? (
              <>
                <span className="font-mono font-semibold">{certified.molarity}</span>
                <span className="font-mono text-[4.2mm]"> ± {certified.expandedUncertainty}</span>
                <span className="text-[4.2mm]"> mol/L</span>
                <span className="text-[3.2mm]"> (k = {certified.coverageFactor})</span>
              </>
            ) : (
              <>
                <span className="font-mono font-semibold">≈ {bottle.nominalMolarity}</span>
                <span className="text-[4.2mm]"> mol/L, </span>
                <span className="text-[4.6mm] font-bold uppercase">not standardized</span>
              </>
            )}
          </p>
          <p className="mt-[1.5mm]">
            {certified ? (
              <>
                certified {dateText(certified.certifiedOn)}, no. {certified.certificateNumber} ·{' '}
                <b>use by {dateText(certified.validUntil)}</b>
              </>
            ) : (
              'nominal: not for measuring until it has been standardized'
            )}
          </p>
          <p className="mt-[1mm]">
            made {dateText(bottle.preparedOn)} by {nameOf(bottle.preparedBy)} from lot{' '}
            {lot?.lotNumber ?? '…'}, {bottle.volumeMl} mL
          </p>
          <p className="mt-auto border-t border-black pt-[1mm] text-[2.9mm]">
            {substance?.cautions[0]}
          </p>
          <p className="text-[2.6mm]">{laboratory.name}</p>
        </article>
      </Page>
    </div>
  );
}
