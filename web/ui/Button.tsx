import type { ComponentProps } from 'react';
import { Link } from 'react-router';

type Look = 'primary' | 'plain' | 'quiet' | 'link';

const LOOKS: Readonly<Record<Look, string>> = {
  primary: 'px-5 bg-violet text-on-violet hover:bg-violet-deep disabled:bg-rule-strong',
  plain:
    'px-5 border border-rule-strong bg-sheet text-ink hover:bg-shade disabled:text-rule-strong',
  quiet: 'px-5 text-violet underline underline-offset-4 hover:bg-violet-wash',
  // In the middle of other text.
  link: 'text-violet underline underline-offset-4 lg:min-h-8',
};

function classes(look: Look, className: string | undefined): string {
  return `inline-flex min-h-12 items-center justify-center gap-2 rounded-md text-base font-semibold no-underline ${LOOKS[look]} ${className ?? ''}`;
}

/** A button, at least 48 px high: it is pressed with gloves on. */
export function Button({
  look = 'plain',
  className,
  type = 'button',
  ...rest
}: ComponentProps<'button'> & { readonly look?: Look }) {
  return <button type={type} className={classes(look, className)} {...rest} />;
}

/** A smaller button for things done many times at one place. */
export function SmallButton({ className, type = 'button', ...rest }: ComponentProps<'button'>) {
  return (
    <button
      type={type}
      className={`min-h-12 rounded border border-rule-strong bg-sheet px-2.5 font-semibold hover:bg-shade ${className ?? ''}`}
      {...rest}
    />
  );
}

/** A link that leads on, drawn like a button. */
export function ButtonLink({
  look = 'plain',
  className,
  ...rest
}: ComponentProps<typeof Link> & { readonly look?: Look }) {
  return <Link className={classes(look, className)} {...rest} />;
}

/** A key of the keyboard. */
export function Key({ children }: { readonly children: string }) {
  return (
    <kbd className="rounded border border-current px-1.5 font-mono text-xs opacity-80">
      {children}
    </kbd>
  );
}

/** The key that does the same as what it stands on, where there is a keyboard. */
export function KeyHint({ children }: { readonly children: string }) {
  return (
    <span aria-hidden="true" className="max-xl:hidden pointer-coarse:hidden">
      <Key>{children}</Key>
    </span>
  );
}

/** Prints the page. */
export function PrintButton({
  look = 'plain',
  children,
}: Pick<ComponentProps<typeof Button>, 'look' | 'children'>) {
  return (
    <Button
      look={look}
      onClick={() => {
        window.print();
      }}
    >
      {children}
    </Button>
  );
}
