import { parseDate, parseDateTime } from '@internationalized/date';
import { useId, useState } from 'react';
import type { DateValue } from 'react-aria-components';
import {
  DateField as Segmented,
  DateInput,
  DateSegment,
  I18nProvider,
} from 'react-aria-components';
import type { FieldProps } from './fields';
import { Frame, notedBy } from './fields';

/** Day, month, year and 24 hours, as dates are written everywhere here, whatever the browser's own language is. */
const LOCALE = 'en-GB';

/** A year that is still being typed: 2, 20, 202. */
const EARLIEST_YEAR = 1000;

/** What kind of moment a field holds: how its text is read and written. */
interface Grain {
  readonly granularity: 'day' | 'minute';
  /** @throws Error for what is none */
  readonly parse: (text: string) => DateValue;
  readonly letters: number;
  readonly say: Intl.DateTimeFormat;
}

const DAY: Grain = {
  granularity: 'day',
  parse: parseDate,
  letters: 'yyyy-mm-dd'.length,
  say: new Intl.DateTimeFormat(LOCALE, {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    timeZone: 'UTC',
  }),
};

const MINUTE: Grain = {
  ...DAY,
  granularity: 'minute',
  parse: parseDateTime,
  letters: 'yyyy-mm-ddThh:mm'.length,
};

interface DateFieldProps extends FieldProps {
  /** `2026-11-27`; empty where there is none. */
  readonly value: string;
  readonly onText: (text: string) => void;
}

/** A date, typed segment by segment; its weekday and month in words beside it. */
export function DateField(props: DateFieldProps) {
  return <Field {...props} grain={DAY} />;
}

/** A date with its time by the laboratory's clock: `2026-11-27T15:00`. */
export function DateTimeField(props: DateFieldProps) {
  return <Field {...props} grain={MINUTE} />;
}

function Field({ grain, value, onText, ...frame }: DateFieldProps & { readonly grain: Grain }) {
  const id = useId();
  const { held, take } = useHeld(grain, value, onText);
  const { error } = frame;
  return (
    <Frame id={id} isGroup {...frame}>
      <I18nProvider locale={LOCALE}>
        <Segmented
          aria-labelledby={`${id}-label`}
          {...notedBy(id, frame)}
          value={held}
          onChange={take}
          granularity={grain.granularity}
          hourCycle={24}
          shouldForceLeadingZeros
          isInvalid={error !== undefined}
          className={`flex min-h-12 w-full flex-wrap items-center gap-x-3 rounded-md bg-sheet px-3 text-lg text-ink ${error === undefined ? 'border border-rule-strong' : 'border-2 border-blush'}`}
        >
          <DateInput className="flex items-center">
            {(segment) => (
              <DateSegment
                segment={segment}
                className={`rounded-sm px-0.5 text-end font-mono outline-none focus:bg-violet focus:text-on-violet ${segment.isPlaceholder ? 'text-ink-soft' : ''} ${segment.type === 'literal' ? 'text-ink-soft' : 'py-2.5'}`}
              />
            )}
          </DateInput>
          {held && (
            <span aria-hidden="true" className="ml-auto text-[15px] text-ink-soft">
              {grain.say.format(held.toDate('UTC'))}
            </span>
          )}
        </Segmented>
      </I18nProvider>
    </Frame>
  );
}

/** What the segments hold: what is handed in, or what is typed while that is not yet a date. */
function useHeld(grain: Grain, value: string, onText: (text: string) => void) {
  const [{ text, held }, setHeld] = useState(() => ({ text: value, held: dateIn(grain, value) }));
  if (text !== value) setHeld({ text: value, held: dateIn(grain, value) });
  return {
    held,
    take: (date: DateValue | null): void => {
      const isTyped = date !== null && date.year < EARLIEST_YEAR;
      const next = isTyped ? text : (date?.toString().slice(0, grain.letters) ?? '');
      setHeld({ text: next, held: date });
      if (next !== text) onText(next);
    },
  };
}

/** A text as a date; null where it is none. */
function dateIn({ parse }: Grain, text: string): DateValue | null {
  try {
    return text === '' ? null : parse(text);
  } catch {
    return null;
  }
}
