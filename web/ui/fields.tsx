import type { ComponentProps, ReactNode } from 'react';
import { useId } from 'react';
import { parseDecimal } from '#core/measurement';
import { NOT_FILLED_IN } from '#contract';

const CONTROL =
  'min-h-12 w-full rounded-md border border-rule-strong bg-sheet px-3 text-lg text-ink aria-invalid:border-2 aria-invalid:border-blush';

export interface FieldProps {
  readonly label: ReactNode;
  /** What to write and why, below the field. */
  readonly hint?: ReactNode;
  readonly error?: string | undefined;
}

/** A field that hands its text on as it is typed, where no form library has it in hand. */
interface TextProps {
  readonly onText?: ((text: string) => void) | undefined;
}

function handingOn({ onText }: TextProps) {
  return (
    onText && {
      onChange: ({ target }: { readonly target: { readonly value: string } }): void => {
        onText(target.value);
      },
    }
  );
}

interface FrameProps extends FieldProps {
  readonly id: string;
  /** The unit of what is written there. */
  readonly unit?: string | undefined;
  /** Whether the label names one control, or a group of them by the id `…-label`. */
  readonly isGroup?: boolean;
  readonly children: ReactNode;
}

/** What is wrong with a field; of one with nothing in it, what is missing there. */
function wrongWith({ label, error, unit }: FieldProps & { readonly unit?: string | undefined }) {
  if (error !== NOT_FILLED_IN || typeof label !== 'string') return error;
  // A symbol stays as it is: U, pH.
  const what = /^[A-Z][a-z]/.test(label) ? label.charAt(0).toLowerCase() + label.slice(1) : label;
  return `Missing: ${what}${unit === undefined ? '' : `, in ${unit}`}.`;
}

/** A label above a control, and a note below it. */
export function Frame(props: FrameProps) {
  const { id, isGroup = false, label, children } = props;
  return (
    <div>
      {isGroup ? (
        <span id={`${id}-label`} className="mb-1 block font-semibold">
          {label}
        </span>
      ) : (
        <label htmlFor={id} className="mb-1 block font-semibold">
          {label}
        </label>
      )}
      {children}
      <FieldNote {...props} />
    </div>
  );
}

/** Below a control, by the id `…-note`: what to write, or what is wrong. */
export function FieldNote(props: Omit<FrameProps, 'children' | 'isGroup'>) {
  const { id, hint } = props;
  const error = wrongWith(props);
  if (error !== undefined) {
    return (
      <p id={`${id}-note`} role="alert" className="mt-1 text-sm font-semibold text-blush">
        {error}
      </p>
    );
  }
  return (
    hint !== undefined && (
      <p id={`${id}-note`} className="mt-1 text-sm text-ink-soft">
        {hint}
      </p>
    )
  );
}

/** How a control names the note below it, where there is one. */
export function notedBy(id: string, { hint, error }: Pick<FieldProps, 'hint' | 'error'>) {
  return hint !== undefined || error !== undefined ? { 'aria-describedby': `${id}-note` } : {};
}

function described(id: string, { hint, error }: FieldProps) {
  return { id, 'aria-invalid': error !== undefined, ...notedBy(id, { hint, error }) };
}

/** A line of text. */
export function TextField({
  label,
  hint,
  error,
  className = '',
  onText,
  ...rest
}: FieldProps & TextProps & ComponentProps<'input'>) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <input
        className={`${CONTROL} ${className}`}
        maxLength={200}
        {...described(id, { label, hint, error })}
        {...handingOn({ onText })}
        {...rest}
      />
    </Frame>
  );
}

/** A number with its unit; decimal comma or point. */
export function QuantityField({
  label,
  hint,
  error,
  unit,
  onText,
  ...rest
}: FieldProps & TextProps & ComponentProps<'input'> & { readonly unit?: string }) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} error={error} unit={unit}>
      <div className="relative">
        <input
          inputMode="decimal"
          autoComplete="off"
          maxLength={30}
          className={`${CONTROL} pr-16 font-mono`}
          {...described(id, { label, hint, error })}
          {...handingOn({ onText })}
          {...rest}
        />
        {unit !== undefined && (
          <span className="pointer-events-none absolute inset-y-0 right-3 flex items-center text-ink-soft">
            {unit}
          </span>
        )}
      </div>
    </Frame>
  );
}

/** How a quantity field hands its text on: with a decimal point, everything else as typed. */
export const asQuantity = {
  setValueAs: (typed: unknown): unknown =>
    typeof typed === 'string' ? (parseDecimal(typed) ?? typed.trim()) : typed,
};

/** An optional quantity: empty means none. */
export const asOptionalQuantity = {
  setValueAs: (typed: unknown): unknown =>
    typed === '' || typed === null ? null : asQuantity.setValueAs(typed),
};

/** What can be chosen: the value and its words. */
export type Option = readonly [value: string, words: ReactNode];

/** The items of a list as options: what each is known by and what it is called. */
export function optionsOf<T extends { readonly id: string }>(
  items: readonly T[],
  wordsOf: (item: T) => ReactNode,
): readonly Option[] {
  return items.map((item) => [item.id, wordsOf(item)]);
}

/** A choice from a list. */
export function SelectField({
  label,
  hint,
  error,
  options = [],
  children,
  onText,
  ...rest
}: FieldProps &
  TextProps &
  ComponentProps<'select'> & {
    readonly options?: readonly Option[] | undefined;
  }) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <select
        className={CONTROL}
        {...described(id, { label, hint, error })}
        {...handingOn({ onText })}
        {...rest}
      >
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
        {children}
      </select>
    </Frame>
  );
}

/** Several lines of text, all of them in sight. */
export function TextAreaField({
  label,
  hint,
  error,
  onText,
  rows = 2,
  ...rest
}: FieldProps & TextProps & ComponentProps<'textarea'>) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <textarea
        rows={rows}
        maxLength={2000}
        // It grows with what is written, where the browser can.
        className={`${CONTROL} field-sizing-content py-2`}
        style={{ minHeight: `${String(1.75 * rows + 1)}rem` }}
        {...described(id, { label, hint, error })}
        {...handingOn({ onText })}
        {...rest}
      />
    </Frame>
  );
}

/** A statement to tick. */
export function CheckField({
  label,
  hint,
  onTick,
  ...rest
}: {
  readonly label: string;
  readonly hint?: string;
  readonly onTick?: (isTicked: boolean) => void;
} & ComponentProps<'input'>) {
  const id = useId();
  return (
    <div className="flex min-h-12 items-center gap-3">
      <input
        id={id}
        type="checkbox"
        className="size-6 shrink-0 accent-violet"
        {...(onTick && {
          onChange: ({ target }) => {
            onTick(target.checked);
          },
        })}
        {...rest}
      />
      <label htmlFor={id}>
        <span className="font-semibold">{label}</span>
        {hint !== undefined && <span className="block text-sm text-ink-soft">{hint}</span>}
      </label>
    </div>
  );
}
