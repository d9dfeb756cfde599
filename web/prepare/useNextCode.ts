import { deviceLetter } from '../app/device';
import { useRecordList } from '../app/lists';
import { useReach } from '../app/reachability';
import { useRecords } from '../app/records';
import { nextCode } from './nextCode';

/**
 * The code for the next bottle, as far as this device knows what is given; undefined while that is on its way. Without the server it
 * carries the device's letter.
 */
export function useNextCode(): string | undefined {
  const atHand = useRecords('bottle');
  const reach = useReach();
  const newest = useRecordList('bottle', { order: 'newest' });
  if (!atHand || (!newest && reach === 'reached')) return undefined;
  const codes = [...atHand, ...(newest?.records ?? [])].map(({ code }) => code);
  return nextCode(codes, reach === 'reached' ? null : deviceLetter());
}
