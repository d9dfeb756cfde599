import type { ComponentProps, ReactNode } from 'react';
import { Button } from './Button';
import { Dialog } from './Dialog';
import { FormError } from './FormError';

type FormProps = Omit<ComponentProps<'form'>, 'onSubmit' | 'noValidate'> & {
  readonly onSubmit: () => unknown;
};

/** A form whose fields say themselves what is wrong with them; sending it never leaves the page. */
export function Form({ onSubmit, ...rest }: FormProps) {
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
      {...rest}
    />
  );
}

interface FormFootProps {
  /** The way on. */
  readonly submit: ReactNode;
  readonly isDisabled?: boolean;
  readonly error?: string | undefined;
  /** The way out, where a form can be left without leaving its page. */
  readonly leave?: string;
  readonly onLeave?: () => void;
  /** Other ways on. */
  readonly children?: ReactNode;
}

/** What stands below the fields of a form: the way on, other ways, the way out, and what is wrong with the whole. */
export function FormFoot(props: FormFootProps) {
  return (
    <div className="col-span-full flex flex-wrap items-center gap-3">
      <Button type="submit" look="primary" disabled={props.isDisabled ?? false}>
        {props.submit}
      </Button>
      {props.children}
      {props.onLeave && <Button onClick={props.onLeave}>{props.leave ?? 'Cancel'}</Button>}
      <FormError message={props.error} />
    </div>
  );
}

type FormDialogProps = Omit<ComponentProps<typeof Dialog>, 'description'> &
  Omit<FormFootProps, 'onLeave' | 'children'> & {
    readonly description: string;
    readonly onSubmit: () => unknown;
    /** How the fields stand. */
    readonly className?: string;
    /** Other ways on. */
    readonly ways?: ReactNode;
  };

/** A question asked in a form: its fields, the way on, the way out. */
export function FormDialog(props: FormDialogProps) {
  const { description, onSubmit, ways, className = 'flex flex-col gap-4', ...rest } = props;
  const { submit, isDisabled = false, error, leave, children, ...dialog } = rest;
  return (
    <Dialog {...dialog} description={<p>{description}</p>}>
      <Form className={className} onSubmit={onSubmit}>
        {children}
        <FormFoot
          submit={submit}
          isDisabled={isDisabled}
          error={error}
          leave={leave ?? 'Cancel'}
          onLeave={dialog.onClose}
        >
          {ways}
        </FormFoot>
      </Form>
    </Dialog>
  );
}
