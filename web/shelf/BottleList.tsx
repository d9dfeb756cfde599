import { findContent } from '#core/chemistry';
import { freshnessOf } from '#core/reagent';
import { Loading } from '../app/Loading';
import { useRecordList } from '../app/lists';
import { PagedTable } from '../app/PagedTable';
import { useSession } from '../app/session';
import { StandingMark } from '../ui/Standing';
import { CellLink } from '../ui/Table';
import { dateText } from '../ui/typeset';

/** The bottles that a search finds, whether they are at hand or long gone; the newest first. */
export function BottleList({ search }: { readonly search: string }) {
  const { today, laboratory } = useSession();
  const bottles = useRecordList('bottle', { order: 'newest', search });
  if (!bottles) return <Loading />;
  return (
    <section aria-label="Bottles found">
      <PagedTable
        list={bottles}
        one="bottle"
        many="bottles"
        caption="Bottles"
        heads={['Bottle', 'What is in it', 'Standing', 'Left', 'Made on']}
        rows={bottles.records.map((bottle) => ({
          key: bottle.id,
          cells: [
            <CellLink key="c" to={`/bottles/${bottle.id}`} className="font-mono font-semibold">
              {bottle.code}
            </CellLink>,
            [
              findContent(bottle.substanceId, bottle.own)?.name ?? bottle.substanceId,
              bottle.nominalMolarity === null ? '' : `${bottle.nominalMolarity} mol/L`,
            ].join(' '),
            <StandingMark
              key="s"
              freshness={freshnessOf(bottle, today, laboratory.settings.warningDays)}
            />,
            `${String(Math.max(0, Math.round(bottles.left[bottle.id] ?? 0)))} of ${bottle.volumeMl} mL`,
            dateText(bottle.preparedOn),
          ],
        }))}
      />
    </section>
  );
}
