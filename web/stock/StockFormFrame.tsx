import type { ReactNode, SyntheticEvent } from 'react';
import { Button } from '../ui/Button';
import { FormError } from '../ui/FormError';

interface StockFormFrameProps {
  readonly name: string;
  readonly submit: string;
  readonly isBusy: boolean;
  readonly error: string | undefined;
  readonly onSubmit: (event: SyntheticEvent) => Promise<void>;
  readonly onDone: () => void;
  /** The field for the reason of a correction. */
  readonly reason?: ReactNode;
  readonly children: ReactNode;
}

/** What the short forms for lots and equipment share: three columns of fields, a way to add and a way out. */
export function StockFormFrame(props: StockFormFrameProps) {
  return (
    <form
      noValidate
      aria-label={props.name}
      className="mb-8 grid max-w-4xl grid-cols-1 gap-x-6 gap-y-4 border-b border-rule pb-6 md:grid-cols-3"
      onSubmit={(event) => void props.onSubmit(event)}
    >
      {props.children}
      {props.reason && <div className="col-span-full max-w-xl">{props.reason}</div>}
      <div className="col-span-full flex items-center gap-3">
        <Button type="submit" look="primary" disabled={props.isBusy}>
          {props.submit}
        </Button>
        <Button onClick={props.onDone}>Cancel</Button>
        <FormError message={props.error} />
      </div>
    </form>
  );
}
