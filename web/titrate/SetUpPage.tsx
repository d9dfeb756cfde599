import { useSearchParams } from 'react-router';
import type { BottleState, LotState } from '#core/reagent';
import { freshnessOf, isLotExpired } from '#core/reagent';
import { Loading } from '../app/Loading';
import { useRecords, useRecordsOf } from '../app/records';
import { useSession } from '../app/session';
import { useStock } from '../app/stock';
import { ButtonLink } from '../ui/Button';
import { Page } from '../ui/Page';
import { methodOptionsFor } from './methodOptions';
import type { Stores } from './onTheBench';
import { SetUpForm } from './SetUpForm';

/** Choosing what a standardization is made with; the plan follows every choice. */
export function SetUpPage() {
  const stores = useStores();
  if (!stores) return <Loading />;
  const { titrants, equipment } = stores;
  const missing = [
    ...(titrants.length === 0 ? [{ what: 'a titrant', to: '/prepare' }] : []),
    ...(equipment.some((item) => item.equipment.type === 'burette')
      ? []
      : [{ what: 'a burette', to: '/equipment' }]),
  ];
  return (
    <Page
      title="Standardize a bottle"
      tabTitle="Set up a run"
      lead="Choose what is on the bench; the plan follows."
    >
      {missing.length === 0 ? (
        <SetUpForm {...stores} />
      ) : (
        <section>
          <p className="text-lg">Before a titration, the laboratory needs:</p>
          <ul className="mt-4 flex gap-3">
            {missing.map(({ what, to }) => (
              <li key={what}>
                <ButtonLink to={to} look="primary">
                  Add {what}
                </ButtonLink>
              </li>
            ))}
          </ul>
        </section>
      )}
    </Page>
  );
}

/** What the laboratory has for a run; undefined while it is on its way. */
function useStores(): Stores | undefined {
  const stock = useStock();
  const methods = useRecords('method');
  const { laboratory, today } = useSession();
  const [search] = useSearchParams();
  const askedId = search.get('bottle');
  const asked = useRecordsOf('bottle', askedId === null ? [] : [askedId]);
  if (!stock || !methods) return undefined;
  const { rules } = laboratory;
  const isOver = ({ lot }: LotState): number => Number(isLotExpired(lot, today));
  const lots = stock.lots.toSorted((a, b) => isOver(a) - isOver(b));
  // A bottle that somebody comes with may be long out of hand.
  const bottles = [...asked.filter((one) => !stock.bottles.includes(one)), ...stock.bottles];
  const shelf = { bottles, lots, methods, today, left: stock.left };
  // A standard has its molarity from how it was made; it may be titrated all the same.
  const isStandard = ({ purpose }: BottleState): number => Number(purpose === 'standard');
  const titrants = bottles
    .filter(
      (bottle) =>
        bottle.nominalMolarity !== null &&
        freshnessOf(bottle, today).kind !== 'withdrawn' &&
        bottle.purpose !== 'auxiliary' &&
        methodOptionsFor(bottle, shelf, rules).length > 0,
    )
    .toReversed()
    .toSorted((a, b) => isStandard(a) - isStandard(b));
  const equipment = stock.equipment.filter(({ withdrawn }) => withdrawn === null);
  return { titrants, shelf, equipment, rules };
}
