import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { findContent, keepingOf } from '#core/chemistry';
import { hazardsOfSolution } from '#core/label';
import type { BottleState } from '#core/reagent';
import { Loading } from '../app/Loading';
import { usePersonName, useRecord, useRuns } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useSession } from '../app/session';
import { Button, ButtonLink } from '../ui/Button';
import { Cautions } from '../ui/Cautions';
import { CorrectionList } from '../ui/CorrectionList';
import { Facts } from '../ui/Facts';
import { HazardMarks } from '../ui/HazardMarks';
import { Page } from '../ui/Page';
import { StandingMark } from '../ui/Standing';
import { UseSwitch } from '../app/UseSwitch';
import { capitalized, dateText, Molarity } from '../ui/typeset';
import { BottleDrawing } from './BottleDrawing';
import { CorrectBottleDialog } from './CorrectBottleDialog';
import { shelfItems } from './shelfItems';

/** One bottle: what is in it, where it comes from, what it was found to be. */
export function BottlePage() {
  const { bottleId = '' } = useParams();
  const { laboratory, today } = useSession();
  const found = useRecord('bottle', bottleId);
  const openRuns = useRuns();
  const nameOf = usePersonName();
  const [isCorrecting, setCorrecting] = useState(false);
  if (found === undefined || !openRuns) return <Loading />;
  if (found === null) return <NotFound />;
  const { record: bottle, left = 0, names } = found;
  const stock = { bottles: [bottle], left: new Map([[bottleId, left]]) };
  const [item] = shelfItems(stock, openRuns, today);
  if (!item) return <NotFound />;
  const { freshness, openRun } = item;
  const content = findContent(bottle.substanceId);
  const isTitrant = bottle.purpose === 'titrant';
  return (
    <Page
      title={`Bottle ${bottle.code}`}
      tabTitle={`Bottle ${bottle.code}`}
      lead={capitalized(
        [
          content?.name,
          bottle.nominalMolarity === null ? null : `nominally ${bottle.nominalMolarity} mol/L`,
        ]
          .filter((text) => text !== null)
          .join(', '),
      )}
      actions={
        <>
          <Button
            onClick={() => {
              setCorrecting(true);
            }}
          >
            Correct it…
          </Button>
          <ButtonLink to={`/bottles/${bottle.id}/label`}>Print a label</ButtonLink>
          {openRun ? (
            <ButtonLink look="primary" to={`/runs/${openRun.id}`}>
              Go on titrating
            </ButtonLink>
          ) : (
            isTitrant && (
              <ButtonLink look="primary" to={`/titrate/set-up?bottle=${bottle.id}`}>
                Standardize
              </ButtonLink>
            )
          )}
        </>
      }
    >
      {isCorrecting && (
        <CorrectBottleDialog
          bottle={bottle}
          onClose={() => {
            setCorrecting(false);
          }}
        />
      )}
      <div className="grid grid-cols-1 gap-10 md:grid-cols-[200px_minmax(0,1fr)] xl:grid-cols-[200px_minmax(0,1fr)_minmax(0,1fr)]">
        <div className="h-[350px] w-[200px] origin-top-left scale-[1.42] max-md:w-[140px]">
          <BottleDrawing bottle={bottle} freshness={freshness} fill={item.fill} />
        </div>
        <section>
          <h2 className="mb-2 text-lg font-bold">As made up</h2>
          <Facts
            rows={[
              ['Standing', <StandingMark key="s" freshness={freshness} />],
              ['Left', `${String(Math.round(item.leftMl))} of ${bottle.volumeMl} mL`],
              ['Made on', dateText(bottle.preparedOn)],
              ['Made by', nameOf(bottle.preparedBy)],
              ...(bottle.parents.length > 0
                ? [['From', <Parents key="p" bottle={bottle} names={names} />] as const]
                : []),
              ...(bottle.plausibleMolarity
                ? ([['Plausible', `${bottle.plausibleMolarity.join(' to ')} mol/L`]] as const)
                : []),
              ...(bottle.dilutionFactor
                ? ([['Diluted', `${bottle.dilutionFactor} times`]] as const)
                : []),
              ...(bottle.useBy ? ([['Use by', dateText(bottle.useBy)]] as const) : []),
              ['Keeping', keepingOf(bottle.substanceId)?.remark ?? 'not in the catalogue'],
              ...(bottle.note ? [['Note', bottle.note] as const] : []),
            ]}
          />
          <div className="mt-4">
            <UseSwitch
              kind="bottle"
              id={bottle.id}
              version={bottle.version}
              withdrawn={bottle.withdrawn}
            />
          </div>
          <CorrectionList
            corrections={bottle.corrections}
            nameOf={nameOf}
            timeZone={laboratory.timeZone}
          />
          <div className="mt-6">
            <Cautions cautions={content?.cautions ?? []} />
          </div>
        </section>
        <section>
          <h2 className="mb-2 text-lg font-bold">Certificates</h2>
          {bottle.certified.length === 0 && (
            <p className="text-ink-soft">
              {bottle.made
                ? `None: its molarity follows from how it was made, ${bottle.made.molarity} ± ${bottle.made.expandedUncertainty} mol/L (k = ${bottle.made.coverageFactor}).`
                : bottle.purpose === 'auxiliary'
                  ? 'None: nothing is measured with it.'
                  : 'None yet: the molarity on the label is nominal, and nothing may be measured with it.'}
            </p>
          )}
          <ol className="divide-y divide-rule">
            {bottle.certified.toReversed().map((certified) => (
              <li key={certified.certificateNumber} className="py-2">
                <p className="text-lg">
                  <Molarity
                    value={certified.molarity}
                    uncertainty={certified.expandedUncertainty}
                  />{' '}
                  <span className="text-sm text-ink-soft">
                    (<i>k</i> = {certified.coverageFactor})
                  </span>
                </p>
                <p className="text-sm text-ink-soft">
                  {dateText(certified.certifiedOn)} to {dateText(certified.validUntil)} ·{' '}
                  <Link
                    className="font-semibold text-violet underline"
                    to={`/runs/${certified.runId}/judge`}
                  >
                    certificate {certified.certificateNumber}
                  </Link>
                </p>
              </li>
            ))}
          </ol>
          <div className="mt-6">
            <HazardMarks
              of="What is in it"
              hazards={hazardsOfSolution(
                bottle.substanceId,
                bottle.nominalMolarity === null ? null : Number(bottle.nominalMolarity),
              )}
            />
          </div>
        </section>
      </div>
    </Page>
  );
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
