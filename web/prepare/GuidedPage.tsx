import { useState } from 'react';
import { useParams } from 'react-router';
import { findContent, findSubstance } from '#core/chemistry';
import { hazardsOfLot, hazardsOfSolution } from '#core/label';
import { sentenceOf } from '#core/ledger';
import { figureText, roundSignificant } from '#core/measurement';
import type { PreparationState, StepState } from '#core/preparation';
import {
  PREPARATION_INCIDENTS,
  nextWork,
  recipeOf,
  spoiltBy,
  whyByProcedure,
} from '#core/preparation';
import { Loading } from '../app/Loading';
import { NotFound } from '../app/RouteError';
import { usePersonName, useRecord, useRecordsOf } from '../app/records';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useStock } from '../app/stock';
import { Asking } from '../ui/Asking';
import { AskingWhy } from '../ui/AskingWhy';
import { ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { HazardMarks } from '../ui/HazardMarks';
import { WaysOut } from '../ui/WaysOut';
import { Page } from '../ui/Page';
import { capitalized, instantText } from '../ui/typeset';
import { BottlingForm } from './BottlingForm';
import { ByProcedure } from './ByProcedure';
import { WentWrongDialog } from './WentWrongDialog';
import { Outcome } from './Outcome';
import { PlanTitle } from './PlanTitle';
import { StepList } from './StepList';
import { StepPanel } from './StepPanel';
import { VesselDrawing } from './VesselDrawing';
import { usePinned } from './usePinned';
import { useEnterPreparation } from './usePreparation';
import { planTitle } from './wording';

/** A preparation, step by step: what to do now, what was done, and what comes of it. */
export function GuidedPage() {
  const { preparationId = '' } = useParams();
  const found = useRecord('preparation', preparationId);
  const stock = useStock();
  if (found === undefined || !stock) return <Loading />;
  if (found === null) return <NotFound />;
  return <Resting key={preparationId} preparation={found.record} stock={stock} />;
}

/** A preparation with what it rests on, also where that is at hand no more. */
function Resting({ preparation, stock }: GuidedProps) {
  const pinned = usePinned(preparation, stock);
  const bottles = useRecordsOf(
    'bottle',
    preparation.bottleId === null ? [] : [preparation.bottleId],
  );
  const known = {
    ...stock,
    lots: [...stock.lots, ...pinned.lots],
    bottles: [...stock.bottles, ...bottles, ...pinned.bottles],
    equipment: [...stock.equipment, ...pinned.equipment],
  };
  return <Guided preparation={preparation} stock={known} />;
}

interface GuidedProps {
  readonly preparation: PreparationState;
  readonly stock: Stock;
}

function Guided({ preparation, stock }: GuidedProps) {
  const { plan, status } = preparation;
  const [chosenId, setChosenId] = useState<string | null>(null);
  const next = nextWork(preparation);
  const chosen = preparation.steps.find(({ id }) => id === chosenId) ?? next;
  const isOpen = status === 'open';
  return (
    <Page
      title={<PlanTitle plan={plan} />}
      tabTitle={planTitle(plan)}
      lead={<Lead preparation={preparation} stock={stock} />}
      actions={isOpen && <Ways preparation={preparation} step={chosen} />}
    >
      <div className="grid grid-cols-1 gap-7 md:grid-cols-[180px_minmax(0,1fr)] xl:grid-cols-[240px_minmax(0,1fr)_272px]">
        <div className="flex flex-col justify-between gap-4">
          <StepList
            preparation={preparation}
            currentId={isOpen ? (chosen?.id ?? null) : null}
            onChoose={setChosenId}
          />
          <VesselDrawing preparation={preparation} />
        </div>
        <section aria-label="Now" className="min-w-0 max-md:order-first">
          {isOpen && whyByProcedure(plan) !== null && (
            <div className="mb-4">
              <ByProcedure plan={plan} />
            </div>
          )}
          <NowPanel
            preparation={preparation}
            stock={stock}
            step={chosen}
            onDone={() => {
              setChosenId(null);
            }}
          />
        </section>
        <Side preparation={preparation} stock={stock} />
      </div>
    </Page>
  );
}

interface WaysProps {
  readonly preparation: PreparationState;
  readonly step: StepState | null;
}

/** What is done when it goes wrong. */
function Ways({ preparation, step }: WaysProps) {
  const enter = useEnterPreparation(preparation);
  return (
    <>
      <Asking button="Something went wrong…">
        {(close) => <WentWrongDialog preparation={preparation} step={step} onClose={close} />}
      </Asking>
      <AskingWhy
        button="Discard it…"
        question={{
          title: 'Discard what was made?',
          description: 'What was taken stays charged to its lot or bottle, and the record stays.',
          confirm: 'Discard it',
          onConfirm: (reason) => enter({ kind: 'preparation.discarded', body: { reason } }),
        }}
      />
    </>
  );
}

/** From what, by whom, since when. */
function Lead({ preparation, stock }: GuidedProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const { plan, started } = preparation;
  const { source } = plan;
  const lotId = 'lotId' in source ? source.lotId : null;
  const from = source.kind === 'dilute' ? source.from : null;
  const bottleId =
    'bottleId' in source ? source.bottleId : from?.kind === 'bottle' ? from.bottleId : null;
  const lot = stock.lots.find(({ id }) => id === lotId)?.lot.lotNumber;
  const code = stock.bottles.find(({ id }) => id === bottleId)?.code;
  const parent =
    lot !== undefined
      ? `from lot ${lot}, `
      : code !== undefined
        ? `from bottle ${code}, `
        : from?.kind === 'sample'
          ? `from ${from.name}, `
          : '';
  return (
    <>
      {capitalized(findContent(plan.soluteId, plan.own)?.name ?? '')}, {parent}
      begun {instantText(started.at, laboratory.timeZone)} by {nameOf(started.by)}
    </>
  );
}

function NowPanel({
  preparation,
  stock,
  step,
  onDone,
}: GuidedProps & { readonly step: StepState | null; readonly onDone: () => void }) {
  if (preparation.status === 'bottled') {
    const bottle = stock.bottles.find(({ id }) => id === preparation.bottleId);
    return <OnTheShelf id={preparation.bottleId ?? ''} code={bottle?.code ?? '…'} />;
  }
  if (preparation.status === 'discarded') {
    return (
      <>
        <h2 className="text-[28px] font-bold">Discarded</h2>
        <p className="my-3 text-lg">{preparation.closed?.reason}</p>
        <ButtonLink look="primary" to="/prepare">
          Plan it again
        </ButtonLink>
      </>
    );
  }
  const spoilt = spoiltBy(preparation);
  if (spoilt) {
    return (
      <>
        <h2 className="text-[28px] font-bold">Discard it and begin again</h2>
        <p className="my-3 text-lg">
          <b>{capitalized(spoilt.name)}.</b> {spoilt.reason}
        </p>
      </>
    );
  }
  return step === null || step.work === 'bottle' || step.work === 'label' ? (
    <BottlingForm preparation={preparation} stock={stock} />
  ) : (
    <StepPanel key={step.id} preparation={preparation} step={step} stock={stock} onDone={onDone} />
  );
}

function OnTheShelf({ id, code }: { readonly id: string; readonly code: string }) {
  return (
    <>
      <h2 className="text-[28px] font-bold">On the shelf</h2>
      <p className="my-3 text-lg">It is bottle {code}. Label it at once.</p>
      <div className="flex gap-3">
        <ButtonLink look="primary" to={`/bottles/${id}/label`}>
          Print its label
        </ButtonLink>
        <ButtonLink to={`/bottles/${id}`}>To the bottle</ButtonLink>
      </div>
    </>
  );
}

/** The result so far, incidents, hazards and cautions. */
function Side({ preparation, stock }: GuidedProps) {
  const { laboratory } = useSession();
  const { plan, late } = preparation;
  const substance = findSubstance(plan.soluteId, plan.own);
  const lotId = 'lotId' in plan.source ? plan.source.lotId : null;
  const lot = stock.lots.find(({ id }) => id === lotId);
  const cautions = [...(recipeOf(plan)?.cautions ?? []), ...(substance?.cautions ?? [])];
  const molarity = plan.targetMolarity === null ? null : Number(plan.targetMolarity);
  return (
    <aside className="flex flex-col gap-4">
      <section>
        <h2 className="font-bold">The result</h2>
        <Outcome preparation={preparation} stock={stock} />
      </section>
      {late.length > 0 && (
        <section className="border-l-4 border-straw pl-3 text-[15px]">
          <h2 className="font-bold">Arrived after it was closed</h2>
          {late.map((fact) => (
            <p key={fact.id}>{sentenceOf(fact)} It is on record and not counted.</p>
          ))}
        </section>
      )}
      {nextWork(preparation) === null && (
        <WaysOut
          substances={substance ? [substance] : []}
          waste={laboratory.rules.waste}
          further={['Rinse funnel, beaker and flask, and look at them: clean glass wets evenly.']}
        />
      )}
      <WentWrong preparation={preparation} />
      <Cautions cautions={[...new Set(cautions)]} />
      {lot && (
        <HazardMarks
          of={`${substance?.shortName ?? ''}, as received`}
          hazards={hazardsOfLot(lot)}
        />
      )}
      <HazardMarks
        of={
          molarity === null
            ? 'The solution'
            : `The solution, ${figureText(roundSignificant(molarity, 2))} mol/L`
        }
        hazards={hazardsOfSolution(plan.soluteId, molarity, plan.own)}
      />
    </aside>
  );
}

/** The incidents that were written down. */
function WentWrong({ preparation: { mishaps } }: { readonly preparation: PreparationState }) {
  if (mishaps.length === 0) return null;
  return (
    <section className="border-l-4 border-blush bg-blush-wash px-3 py-2 text-[15px]">
      <h2 className="font-bold">What went wrong</h2>
      {mishaps.map(({ factId, mishapId, remark }) => (
        <p key={factId}>
          {capitalized(PREPARATION_INCIDENTS.find(({ id }) => id === mishapId)?.name ?? mishapId)}
          {remark && `: ${remark}`}
        </p>
      ))}
    </section>
  );
}
