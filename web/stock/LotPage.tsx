import type { ComponentProps, ReactNode } from 'react';
import { useState } from 'react';
import { useParams } from 'react-router';
import { findSubstance } from '#core/chemistry';
import { hazardsOfLot } from '#core/label';
import { figureText, parseDecimal, roundSignificant } from '#core/measurement';
import type { Lot, LotState } from '#core/reagent';
import { lotMolarity, lotMolarMass, purityText, unitOfLot, whyLeft } from '#core/reagent';
import { may } from '#core/rights';
import { BottleTable } from '../app/BottleTable';
import { useListOn } from '../app/lists';
import { Loading } from '../app/Loading';
import { RunsTable } from '../app/RunsTable';
import { useAddToRecord } from '../app/entering';
import { usePersonName, useRecord } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useSession } from '../app/session';
import { HistoryLink } from '../app/HistoryLink';
import { UseSwitch } from '../app/UseSwitch';
import { Asking } from '../ui/Asking';
import { Button, ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { CorrectionList } from '../ui/CorrectionList';
import { Facts } from '../ui/Facts';
import { QuantityField, TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { HazardMarks } from '../ui/HazardMarks';
import { Page } from '../ui/Page';
import { messagesOf } from '../ui/refusal';
import { capitalized, ChemicalFormula, dateText } from '../ui/typeset';
import { useTyped } from '../ui/useTyped';
import { Why } from '../ui/Why';
import { DryingLog } from './DryingLog';
import { ClassifyDialog } from './ClassifyDialog';
import { LotCertificates } from './LotCertificates';
import { LotForm } from './LotForm';
import { leftText } from './wording';

/** One lot: what its certificate says, what is left, the drying log, the certificate itself. */
export function LotPage() {
  const { lotId = '' } = useParams();
  const found = useRecord('lot', lotId);
  if (found === undefined) return <Loading />;
  if (found === null) return <NotFound />;
  return <LotView key={lotId} state={found.record} left={found.left} />;
}

function LotView({ state, left }: LotViewProps) {
  const { laboratory, person } = useSession();
  const nameOf = usePersonName();
  const [isCorrecting, setCorrecting] = useState(false);
  const { lot } = state;
  const substance = findSubstance(lot.substanceId, lot.own);
  return (
    <Page
      title={`Lot ${lot.lotNumber}`}
      tabTitle={`Lot ${lot.lotNumber}`}
      lead={
        <>
          {capitalized(substance?.name ?? '')} <ChemicalFormula of={substance?.formula ?? ''} />,{' '}
          {lot.supplier}
        </>
      }
      actions={
        <Ways
          state={state}
          onCorrect={() => {
            setCorrecting(true);
          }}
        />
      }
    >
      {isCorrecting && (
        <LotForm
          corrects={state}
          onDone={() => {
            setCorrecting(false);
          }}
        />
      )}
      <div className="grid grid-cols-1 gap-10 md:grid-cols-2 xl:grid-cols-3">
        <AsReceived state={state} left={left} />
        <section className="flex flex-col gap-8">
          {!lot.dissolved && <DryingLog state={state} />}
          <LotCertificates state={state} />
          <CorrectionList
            corrections={state.corrections}
            nameOf={nameOf}
            timeZone={laboratory.timeZone}
          />
        </section>
        <aside className="flex flex-col gap-4">
          <Cautions cautions={substance?.cautions ?? []} />
          <HazardMarks
            of={lot.dissolved ? 'The solution' : 'As received'}
            hazards={hazardsOfLot(state)}
          />
          {may(person, 'register') && (
            <Asking button="By its safety data sheet…" className="self-start text-[15px]">
              {(close) => <ClassifyDialog state={state} onClose={close} />}
            </Asking>
          )}
        </aside>
      </div>
      <WhatRestsOn lotId={state.id} />
    </Page>
  );
}

/** What was made of a lot and titrated with it: where one looks when something turns out to be wrong with it. */
function WhatRestsOn({ lotId }: { readonly lotId: string }) {
  const bottles = useListOn('bottle', lotId);
  const runs = useListOn('run', lotId);
  return (
    <>
      {bottles && bottles.records.length > 0 && (
        <section className="mt-8">
          <h2 className="mb-2 text-lg font-bold">Made of it</h2>
          <BottleTable bottles={bottles} />
        </section>
      )}
      {runs && runs.records.length > 0 && (
        <section className="mt-8">
          <h2 className="mb-2 text-lg font-bold">Titrated with it</h2>
          <RunsTable runs={runs} />
        </section>
      )}
    </>
  );
}

interface LotViewProps {
  readonly state: LotState;
  readonly left: number | undefined;
}

/** What can be done with a lot as a whole. */
function Ways({ state, onCorrect }: { readonly state: LotState; readonly onCorrect: () => void }) {
  const { person, today } = useSession();
  const add = useAddToRecord();
  return (
    <>
      <ButtonLink to="/lots">All lots</ButtonLink>
      {may(person, 'register') && <Button onClick={onCorrect}>Correct it…</Button>}
      {state.lot.openedOn === null && (
        <Button
          onClick={() => {
            const fact = { kind: 'lot.opened', body: { openedOn: today } } as const;
            add.mutate({ recordId: state.id, basedOn: state.version, fact });
          }}
        >
          It is opened today
        </Button>
      )}
    </>
  );
}

function AsReceived({ state, left }: LotViewProps) {
  return (
    <section>
      <h2 className="mb-2 text-lg font-bold">As received</h2>
      <Facts rows={factsOf(state.lot, left)} />
      <div className="mt-4 flex flex-wrap gap-3">
        <Asking button="Count it…" className="text-[15px]">
          {(close) => <CountDialog state={state} onClose={close} />}
        </Asking>
        <UseSwitch kind="lot" id={state.id} version={state.version} withdrawn={state.withdrawn} />
        <HistoryLink of={state.id} />
      </div>
    </section>
  );
}

/** What is known of a lot, line by line. */
function factsOf(lot: Lot, left: number | undefined): ComponentProps<typeof Facts>['rows'] {
  const molarity = lotMolarity(lot);
  const figure = (text: string): ReactNode => <span className="font-mono">{text}</span>;
  const molarMass = roundSignificant(lotMolarMass(lot).valueGPerMol, 7);
  return [
    ['Form', lot.dissolved ? 'solution' : (findSubstance(lot.substanceId, lot.own)?.form ?? '')],
    lot.dissolved?.meaning === 'by-molarity'
      ? ['Molarity', figure(`${figureText(lot.dissolved.molarity)} mol/L ± ${percentText(lot)}`)]
      : [lot.dissolved ? 'Content' : 'Purity', figure(purityText(lot))],
    ...(molarity === null || lot.dissolved?.meaning === 'by-molarity'
      ? []
      : [['Molarity', `${figureText(roundSignificant(molarity, 3))} mol/L`] as const]),
    ['Molar mass', figure(`${figureText(molarMass)} g/mol`)],
    ...(lot.certificateNumber ? [['Its certificate', lot.certificateNumber] as const] : []),
    ['Received', dateText(lot.receivedOn)],
    ['Opened', lot.openedOn === null ? 'not yet' : dateText(lot.openedOn)],
    ['Use by', lot.useBy === null ? 'none' : dateText(lot.useBy)],
    ['Store', lot.store === '' ? '–' : lot.store],
    [
      'Left',
      <b key="l">
        {lot.amountReceived === null ? (
          leftText(lot, left)
        ) : (
          <Why
            of="so much is left"
            because={[whyLeft(`${figureText(lot.amountReceived)} ${unitOfLot(lot)}`)]}
          >
            {leftText(lot, left)}
          </Why>
        )}
      </b>,
    ],
  ];
}

/** How far the content of a lot may be off, in %. */
function percentText({ purityHalfWidth }: Lot): string {
  return `${figureText(roundSignificant(100 * Number(purityHalfWidth), 2))} %`;
}

/** Counts what is there, which takes the place of what was calculated. */
function CountDialog({
  state,
  onClose,
}: {
  readonly state: LotState;
  readonly onClose: () => void;
}) {
  const add = useAddToRecord();
  const { typed, field } = useTyped({ amountLeft: '', reason: '' }, messagesOf(add.error));
  return (
    <FormDialog
      title="How much is there?"
      description="Whatever is taken from now on is subtracted from this."
      submit="Write it down"
      error={add.error?.message}
      onSubmit={() => {
        const { amountLeft, reason } = typed;
        const body = { amountLeft: parseDecimal(amountLeft) ?? amountLeft, reason };
        const fact = { kind: 'lot.counted', body } as const;
        add.mutate({ recordId: state.id, basedOn: state.version, fact }, { onSuccess: onClose });
      }}
      onClose={onClose}
    >
      <QuantityField label="There is" unit={unitOfLot(state.lot)} {...field('amountLeft')} />
      <TextAreaField label="Why it is counted" {...field('reason')} />
    </FormDialog>
  );
}
