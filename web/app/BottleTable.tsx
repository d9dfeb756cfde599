import { figureText } from '#core/measurement';
import { findContent } from '#core/chemistry';
import { freshnessOf } from '#core/reagent';
import { StandingMark } from '../ui/Standing';
import { CellLink } from '../ui/Table';
import { dateText } from '../ui/typeset';
import type { PagedList } from './lists';
import { PagedTable } from './PagedTable';
import { useSession } from './session';

/** Bottles with what is in them and where they stand. */
export function BottleTable({ bottles }: { readonly bottles: PagedList<'bottle'> }) {
  const { today, laboratory } = useSession();
  return (
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
            bottle.nominalMolarity === null ? '' : `${figureText(bottle.nominalMolarity)} mol/L`,
          ].join(' '),
          <StandingMark
            key="s"
            freshness={freshnessOf(bottle, today, laboratory.settings.warningDays)}
          />,
          `${String(Math.max(0, Math.round(bottles.left[bottle.id] ?? 0)))} of ${figureText(bottle.volumeMl)} mL`,
          dateText(bottle.preparedOn),
        ],
      }))}
    />
  );
}
