import type { ReactNode } from 'react';
import { Form, FormFoot } from '../ui/Form';

interface StockFormFrameProps {
  readonly name: string;
  readonly submit: string;
  readonly isBusy: boolean;
  readonly error: string | undefined;
  readonly onSubmit: () => unknown;
  readonly onDone: () => void;
  /** The field for the reason of a correction. */
  readonly reason?: ReactNode;
  readonly children: ReactNode;
}

/** What the short forms for lots and equipment share: three columns of fields, a way to add and a way out. */
export function StockFormFrame(props: StockFormFrameProps) {
  return (
    <Form
      aria-label={props.name}
      className="mb-8 grid max-w-4xl grid-cols-1 gap-x-6 gap-y-4 border-b border-rule pb-6 md:grid-cols-3"
      onSubmit={props.onSubmit}
    >
      {props.children}
      {props.reason && <div className="col-span-full max-w-xl">{props.reason}</div>}
      <FormFoot
        submit={props.submit}
        isDisabled={props.isBusy}
        error={props.error}
        onLeave={props.onDone}
      />
    </Form>
  );
}
