import type { ComponentProps } from 'react';
import { useState } from 'react';
import { useParams } from 'react-router';
import { figureText } from '#core/measurement';
import { may } from '#core/rights';
import type { Sample, SampleState } from '#core/sample';
import { dilutionText, requirementText, statedWithin, takenText } from '#core/sample';
import { reportLink } from '#core/titration/run';
import { useAddToRecord } from '../app/entering';
import { HistoryLink } from '../app/HistoryLink';
import { useListOn } from '../app/lists';
import { Loading } from '../app/Loading';
import { usePersonName, useRecord, useRecordsOf, useRuns } from '../app/records';
import { NotFound } from '../app/RouteError';
import { RunsTable } from '../app/RunsTable';
import { useSession } from '../app/session';
import { Asking } from '../ui/Asking';
import { AskingWhy } from '../ui/AskingWhy';
import { Button, ButtonLink } from '../ui/Button';
import { CorrectionList } from '../ui/CorrectionList';
import { Facts } from '../ui/Facts';
import { Page } from '../ui/Page';
import { CellLink, Table } from '../ui/Table';
import { dateText, instantText } from '../ui/typeset';
import { ControlCharts } from './ControlCharts';
import { DilutionDialog } from './DilutionDialog';
import { SampleForm } from './SampleForm';
import { analysisName, standingText, statedText } from './wording';

/** One sample: what it is, what is to be found, how it was diluted. */
export function SamplePage() {
  const { sampleId = '' } = useParams();
  const found = useRecord('sample', sampleId);
  if (found === undefined) return <Loading />;
  if (found === null) return <NotFound />;
  return <SampleView key={sampleId} state={found.record} />;
}

function SampleView({ state }: { readonly state: SampleState }) {
  const { laboratory, person, today } = useSession();
  const nameOf = usePersonName();
  const [isCorrecting, setCorrecting] = useState(false);
  const openRuns = useRuns() ?? [];
  const { sample, disposed } = state;
  const isOpen = may(person, 'enter') && !disposed;
  return (
    <Page
      title={`Sample ${sample.code}`}
      tabTitle={`Sample ${sample.code}`}
      lead={[sample.description, sample.source].filter((one) => one !== '').join(', ')}
      actions={
        <>
          <ButtonLink to="/samples">All samples</ButtonLink>
          {isOpen && <ButtonLink to={`/samples/${state.id}/label`}>Label…</ButtonLink>}
          {isOpen && sample.requests.length > 0 && (
            <ButtonLink look="primary" to={`/titrate/samples?sample=${state.id}`}>
              Titrate it
            </ButtonLink>
          )}
          {isOpen && (
            <Button
              onClick={() => {
                setCorrecting(true);
              }}
            >
              Correct it…
            </Button>
          )}
        </>
      }
    >
      {isCorrecting && (
        <SampleForm
          corrects={state}
          onDone={() => {
            setCorrecting(false);
          }}
        />
      )}
      {disposed && (
        <p className="mb-4 border-l-4 border-rule-strong bg-shade px-3 py-2">
          <b>Disposed of</b> {instantText(disposed.at, laboratory.timeZone)} by{' '}
          {nameOf(disposed.by)}: {disposed.how}
        </p>
      )}
      <div className="grid grid-cols-1 gap-10 md:grid-cols-2 xl:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)_minmax(0,1fr)]">
        <ToBeFound sample={sample} />
        <section>
          <h2 className="mb-2 text-lg font-bold">As received</h2>
          <Facts rows={factsOf(sample, standingText(state, today, openRuns))} />
          <div className="mt-4 flex flex-wrap gap-3">
            {isOpen && <Dispose state={state} />}
            <HistoryLink of={state.id} />
          </div>
        </section>
        <section>
          <Dilutions state={state} isOpen={isOpen} />
          <CorrectionList
            corrections={state.corrections}
            nameOf={nameOf}
            timeZone={laboratory.timeZone}
          />
        </section>
      </div>
      <Reported state={state} />
      {sample.isControl === true && <ControlCharts state={state} isOpen={isOpen} />}
      <Titrated sampleId={state.id} />
    </Page>
  );
}

/** What was stated of it, and in which report. */
function Reported({ state: { reported, sample } }: { readonly state: SampleState }) {
  if (reported.length === 0) return null;
  return (
    <section className="mt-8">
      <h2 className="mb-2 text-lg font-bold">Reported</h2>
      <Table
        caption="Reported"
        heads={['Analysis', 'Content', 'On', 'Report']}
        rows={reported.toReversed().map((one) => ({
          key: one.reportNumber,
          cells: [
            analysisName(one.analysisId, sample.own),
            one.withdrawn ? <s key="c">{one.stated}</s> : one.stated,
            dateText(one.reportedOn),
            <CellLink key="l" to={reportLink('', one.runId, one.reportNumber)}>
              {one.reportNumber}
              {one.withdrawn && ', withdrawn'}
            </CellLink>,
          ],
        }))}
      />
    </section>
  );
}

/** The runs in which it was titrated, with what was found. */
function Titrated({ sampleId }: { readonly sampleId: string }) {
  const runs = useListOn('run', sampleId);
  if (!runs || runs.records.length === 0) return null;
  return (
    <section className="mt-8">
      <h2 className="mb-2 text-lg font-bold">Titrated</h2>
      <RunsTable runs={runs} />
    </section>
  );
}

function ToBeFound({ sample: { requests, own } }: { readonly sample: Sample }) {
  return (
    <section>
      <h2 className="mb-2 text-lg font-bold">To be found</h2>
      {requests.length === 0 && (
        <p className="text-ink-soft">Nothing yet: correct the sample to add an analysis.</p>
      )}
      <ul className="flex flex-col gap-4">
        {requests.map((request) => (
          <li key={request.analysisId} className="border-l-4 border-leaf pl-3">
            <b>{analysisName(request.analysisId, own)}</b>
            <br />
            {statedText(request, own)}
            {request.expected !== null && `; ${figureText(request.expected)} expected`}
            <br />
            <span className="text-ink-soft">
              {requirementText(request.requirement, request.unit)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function factsOf(sample: Sample, standing: string): ComponentProps<typeof Facts>['rows'] {
  const { amount, density, unitMass, dryMatter } = sample;
  return [
    ['For', sample.customer || '–'],
    ['Taken', takenText(sample, dateText)],
    ['Received', dateText(sample.receivedOn)],
    ['Condition', sample.condition || '–'],
    ['Amount', amount ? `${figureText(amount.value)} ${amount.unit}` : 'not measured'],
    ...(density ? [['Density', statedWithin(density, 'g/mL')] as const] : []),
    ...(dryMatter ? [['Dry matter', statedWithin(dryMatter, '%')] as const] : []),
    ...(unitMass ? [['Mean mass of one', statedWithin(unitMass, 'g')] as const] : []),
    ['Kept', sample.store || '–'],
    ['Kept until', sample.keepUntil === null ? 'no date set' : dateText(sample.keepUntil)],
    ['Standing', standing],
  ];
}

/** The steps from the original to what is titrated. */
function Dilutions({ state, isOpen }: { readonly state: SampleState; readonly isOpen: boolean }) {
  const { dilutions, struck } = state;
  const nameOf = usePersonName();
  const add = useAddToRecord();
  const ware = useRecordsOf('equipment', [
    ...new Set([...dilutions, ...struck].flatMap(({ pipette, flask }) => [pipette.id, flask.id])),
  ]);
  const wareOf = (id: string) => ware.find((one) => one.id === id);
  const last = dilutions.at(-1);
  return (
    <>
      <h2 className="mb-2 text-lg font-bold">Dilutions</h2>
      {dilutions.length === 0 && <p className="text-ink-soft">None: titrated as it is.</p>}
      <ol className="list-decimal pl-5">
        {dilutions.map((one) => (
          <li key={one.factId} className="mb-1">
            <b className="font-mono">{dilutionText(one, wareOf)}</b>{' '}
            <span className="text-ink-soft">
              {wareOf(one.pipette.id)?.equipment.name}, {wareOf(one.flask.id)?.equipment.name} (
              {nameOf(one.by)})
            </span>
          </li>
        ))}
      </ol>
      {struck.map((one) => (
        <p key={one.factId} className="text-ink-soft">
          <s>{dilutionText(one, wareOf)}</s> {one.because}
        </p>
      ))}
      {isOpen && (
        <div className="mt-3 flex flex-wrap gap-3">
          <Asking button="Dilute…" className="text-[15px]">
            {(close) => <DilutionDialog state={state} onClose={close} />}
          </Asking>
          {last && (
            <AskingWhy
              button="Strike the last one…"
              className="text-[15px]"
              question={{
                title: 'Strike the last dilution?',
                description: 'It stays on record with your reason, and counts no more.',
                confirm: 'Strike it',
                onConfirm: (reason) =>
                  add.mutateAsync({
                    recordId: state.id,
                    basedOn: state.version,
                    fact: {
                      kind: 'sample.dilution-struck',
                      body: { dilutionId: last.factId, reason },
                    },
                  }),
              }}
            />
          )}
        </div>
      )}
    </>
  );
}

function Dispose({ state }: { readonly state: SampleState }) {
  const add = useAddToRecord();
  return (
    <AskingWhy
      button="Dispose of it…"
      className="text-[15px]"
      question={{
        title: 'Dispose of it?',
        description: 'Nothing more can be measured of it. What was measured stays.',
        confirm: 'It is disposed of',
        label: 'How',
        onConfirm: (how) =>
          add.mutateAsync({
            recordId: state.id,
            basedOn: state.version,
            fact: { kind: 'sample.disposed', body: { how } },
          }),
      }}
    />
  );
}
