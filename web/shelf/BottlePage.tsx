import { figureText } from '#core/measurement';
import type { ComponentProps, ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { findContent, keepingOf } from '#core/chemistry';
import { hazardsOfBottle } from '#core/label';
import type { Settings } from '#core/laboratory';
import { ownKeepingDays } from '#core/laboratory';
import type { BottleState } from '#core/reagent';
import { certificateLink } from '#core/titration/run';
import { historyOf, isLabelOld, readyFrom, whyKept, whyLeft } from '#core/reagent';
import { endOfSentence } from '#core/wording';
import { Loading } from '../app/Loading';
import { usePersonName, useRecord, useRuns } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useRunList } from '../app/lists';
import { RunsTable } from '../app/RunsTable';
import { useSession } from '../app/session';
import { Asking } from '../ui/Asking';
import { ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { CorrectionList } from '../ui/CorrectionList';
import { Facts } from '../ui/Facts';
import { HazardMarks } from '../ui/HazardMarks';
import { Page } from '../ui/Page';
import { StandingMark } from '../ui/Standing';
import { HistoryLink } from '../app/HistoryLink';
import { UseSwitch } from '../app/UseSwitch';
import { capitalized, dateText, Molarity } from '../ui/typeset';
import { Marked, Term } from '../ui/Term';
import { Why } from '../ui/Why';
import { BottleDrawing } from './BottleDrawing';
import { CorrectBottleDialog } from './CorrectBottleDialog';
import type { ShelfItem } from './shelfItems';
import { shelfItems } from './shelfItems';

/** One bottle: what is in it, where it comes from, what it was found to be. */
export function BottlePage() {
  const { bottleId = '' } = useParams();
  const { today, laboratory } = useSession();
  const found = useRecord('bottle', bottleId);
  const openRuns = useRuns();
  if (found === undefined || !openRuns) return <Loading />;
  if (found === null) return <NotFound />;
  const { record: bottle, left = 0, names } = found;
  const stock = { bottles: [bottle], left: new Map([[bottleId, left]]) };
  const [item] = shelfItems(stock, openRuns, today, laboratory.settings.warningDays);
  if (!item) return <NotFound />;
  const nominal = bottle.nominalMolarity;
  const lead = [
    findContent(bottle.substanceId, bottle.own)?.name,
    nominal === null ? null : `nominally ${figureText(nominal)} mol/L`,
  ].filter((text) => text !== null);
  return (
    <Page
      title={`Bottle ${bottle.code}`}
      tabTitle={`Bottle ${bottle.code}`}
      lead={capitalized(lead.join(', '))}
      actions={<Ways item={item} />}
    >
      <div className="grid grid-cols-1 gap-10 md:grid-cols-[200px_minmax(0,1fr)] xl:grid-cols-[200px_minmax(0,1fr)_minmax(0,1fr)]">
        <div className="h-[350px] w-[200px] origin-top-left scale-[1.42] max-md:w-[140px]">
          <BottleDrawing bottle={bottle} freshness={item.freshness} fill={item.fill} />
        </div>
        <AsMadeUp item={item} names={names} />
        <section className="md:col-start-2 xl:col-start-auto">
          <Certificates bottle={bottle} />
          <div className="mt-6">
            <HazardMarks of="What is in it" hazards={hazardsOfBottle(bottle)} />
          </div>
          <div className="mt-6">
            <Cautions cautions={findContent(bottle.substanceId, bottle.own)?.cautions ?? []} />
          </div>
        </section>
      </div>
      <RunsOn bottle={bottle} />
    </Page>
  );
}

/** Every series of titrations on a bottle, the newest first: how its molarity moved. */
function RunsOn({ bottle: { id, purpose } }: { readonly bottle: BottleState }) {
  const runs = useRunList('', '', id);
  if (!runs || (runs.records.length === 0 && purpose !== 'titrant')) return null;
  return (
    <section className="mt-8">
      <h2 className="mb-2 text-lg font-bold">Titrations</h2>
      {runs.records.length === 0 ? (
        <p className="text-ink-soft">It has not been titrated yet.</p>
      ) : (
        <RunsTable runs={runs} isOfOneBottle />
      )}
    </section>
  );
}

/** What can be done with a bottle. */
function Ways({ item: { bottle, openRun } }: { readonly item: ShelfItem }) {
  return (
    <>
      <Asking button="Correct it…">
        {(close) => <CorrectBottleDialog bottle={bottle} onClose={close} />}
      </Asking>
      <ButtonLink to={`/bottles/${bottle.id}/label`}>Print a label</ButtonLink>
      {openRun ? (
        <ButtonLink look="primary" to={`/runs/${openRun.id}`}>
          Go on titrating
        </ButtonLink>
      ) : (
        bottle.purpose === 'titrant' &&
        bottle.withdrawn === null && (
          <ButtonLink look="primary" to={`/titrate/set-up?bottle=${bottle.id}`}>
            Standardize
          </ButtonLink>
        )
      )}
    </>
  );
}

interface AsMadeUpProps {
  readonly item: ShelfItem;
  /** What its parents are called. */
  readonly names: Readonly<Record<string, string>>;
}

function AsMadeUp({ item, names }: AsMadeUpProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const { bottle } = item;
  return (
    <section>
      <h2 className="mb-2 text-lg font-bold">As made up</h2>
      <Facts rows={factsOf(item, names, nameOf, laboratory.settings)} />
      <div className="mt-4">
        <UseSwitch
          kind="bottle"
          id={bottle.id}
          version={bottle.version}
          withdrawn={bottle.withdrawn}
        />
        <HistoryLink of={bottle.id} />
      </div>
      <CorrectionList
        corrections={bottle.corrections}
        nameOf={nameOf}
        timeZone={laboratory.timeZone}
      />
    </section>
  );
}

type Rows = ComponentProps<typeof Facts>['rows'];

/** What is known of a bottle, line by line. */
function factsOf(
  { bottle, freshness, leftMl }: ShelfItem,
  names: AsMadeUpProps['names'],
  nameOf: (personId: string) => string,
  settings: Settings,
): Rows {
  const { plausibleMolarity, dilutionFactor, useBy, note } = bottle;
  const clearFrom = readyFrom(bottle);
  return [
    ['Standing', <StandingMark key="s" freshness={freshness} />],
    [
      'Left',
      <Why key="l" of="so much is left" because={[whyLeft(`${figureText(bottle.volumeMl)} mL`)]}>
        {Math.round(leftMl)} of {figureText(bottle.volumeMl)} mL
      </Why>,
    ],
    ['Made on', dateText(bottle.preparedOn)],
    ['Made by', nameOf(bottle.preparedBy)],
    ...row('Made from', bottle.parents.length > 0 && <Parents bottle={bottle} names={names} />),
    ...row(
      'Plausible',
      plausibleMolarity && `${plausibleMolarity.map(figureText).join(' to ')} mol/L`,
    ),
    ...row('Diluted', dilutionFactor && `${figureText(dilutionFactor)} times`),
    ...row('Use by', useBy && dateText(useBy)),
    ...row('Clear from', clearFrom && dateText(clearFrom)),
    [
      'Keeping',
      <span key="k">
        {keepingText(bottle)}{' '}
        <Why
          of="it keeps so long"
          because={[whyKept(bottle, ownKeepingDays(settings, bottle.substanceId))]}
        />
      </span>,
    ],
    ...row('Note', note),
  ];
}

/** In what it is kept, for how long at most, and what ends it whatever its date. */
function keepingText({ substanceId, own }: BottleState): string {
  const keeping = keepingOf(substanceId, own);
  if (!keeping) return 'not in the catalogue';
  const { remark, endedBy } = keeping;
  return endedBy === '' ? remark : `${remark}; discard it when it shows ${endedBy}`;
}

/** A line of what is said of a bottle, where there is anything to say. */
function row(name: string, value: ReactNode): Rows {
  return value === null || value === false || value === '' ? [] : [[name, value]];
}

function Certificates({ bottle }: { readonly bottle: BottleState }) {
  const { laboratory } = useSession();
  const history = historyOf(bottle.certified, laboratory.rules);
  return (
    <>
      <h2 className="mb-2 text-lg font-bold">Certificates</h2>
      <OldLabel bottle={bottle} />
      {bottle.certified.length === 0 && (
        <p className="text-ink-soft">
          <Marked text={withoutCertificate(bottle)} />
        </p>
      )}
      <ol className="divide-y divide-rule">
        {history.toReversed().map(({ certified, underTodaysRule, switchedOn }) => (
          <li key={certified.certificateNumber} className="py-2">
            <p className="text-lg">
              <Molarity value={certified.molarity} uncertainty={certified.expandedUncertainty} />{' '}
              <span className="text-sm text-ink-soft">
                (
                <Term of="coverage-factor">
                  <i>k</i>
                </Term>{' '}
                = {figureText(certified.coverageFactor)})
              </span>
            </p>
            <p className="text-sm text-ink-soft">
              {dateText(certified.certifiedOn)} to {dateText(certified.validUntil)} ·{' '}
              <Link
                className="font-semibold text-violet underline"
                to={certificateLink('', certified.runId, certified.certificateNumber)}
              >
                certificate {certified.certificateNumber}
              </Link>
            </p>
            <Withdrawn bottle={bottle} number={certified.certificateNumber} />
            {underTodaysRule !== null && (
              <p className="text-sm text-ink-soft">
                {figureText(underTodaysRule)} mol/L as the house rule corrects today
              </p>
            )}
            {switchedOn !== null && (
              <p className="mt-2 border-l-4 border-straw pl-2 text-sm">
                From {dateText(switchedOn)} on figures are corrected otherwise than before: a step
                here is no drift.
              </p>
            )}
          </li>
        ))}
      </ol>
    </>
  );
}

/** Why a certificate holds no longer. */
function Withdrawn({ bottle, number }: { readonly bottle: BottleState; readonly number: string }) {
  const withdrawn = bottle.certificatesWithdrawn.find(
    ({ certificateNumber }) => certificateNumber === number,
  );
  if (!withdrawn) return null;
  return (
    <p className="mt-1 border-l-4 border-blush pl-2 text-sm">
      <b className="text-blush">Withdrawn:</b> {endOfSentence(withdrawn.reason)}
    </p>
  );
}

/** Whether the label on the bottle says what holds: the last one was made before the last certificate, or before that was withdrawn. */
function OldLabel({ bottle }: { readonly bottle: BottleState }) {
  if (!isLabelOld(bottle)) return null;
  return (
    <p className="mb-3 border-l-4 border-blush bg-blush-wash px-3 py-1.5">
      The label on the bottle states what holds no longer.{' '}
      <ButtonLink look="link" to={`/bottles/${bottle.id}/label`}>
        Print a new one
      </ButtonLink>
    </p>
  );
}

/** What the molarity of a bottle that was never certified is worth. */
function withoutCertificate({ made, purpose }: BottleState): string {
  if (made) {
    return `None: its molarity follows from how it was made, ${figureText(made.molarity)} ± ${figureText(made.expandedUncertainty)} mol/L (k = ${figureText(made.coverageFactor)}).`;
  }
  return purpose === 'auxiliary'
    ? 'None: nothing is measured with it.'
    : 'None yet: the molarity on the label is nominal, and nothing may be measured with it.';
}

/** What it was made from, and the record of how. */
function Parents({
  bottle,
  names,
}: {
  readonly bottle: BottleState;
  readonly names: Readonly<Record<string, string>>;
}) {
  const link = 'font-semibold text-violet underline';
  return (
    <>
      {bottle.parents.map(({ kind, id }) =>
        kind === 'lot' ? (
          <Link key={id} to={`/lots/${id}`} className={link}>
            lot {names[id] ?? '…'}
          </Link>
        ) : (
          <Link key={id} to={`/bottles/${id}`} className={link}>
            bottle {names[id] ?? '…'}
          </Link>
        ),
      )}
      {bottle.preparationId !== null && (
        <>
          ,{' '}
          <Link to={`/preparations/${bottle.preparationId}`} className={link}>
            as it was done
          </Link>
        </>
      )}
    </>
  );
}
