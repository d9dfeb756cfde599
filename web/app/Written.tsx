import type { Provenance } from '#core/record';
import { instantText } from '../ui/typeset';
import { usePersonName } from './records';
import { useSession } from './session';

interface WrittenProps {
  readonly written: readonly (Provenance & { readonly reason: string })[];
}

/** How often something was written, by whom last, when and why. */
export function Written({ written }: WrittenProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const last = written.at(-1);
  return (
    <span className="text-[15px]">
      version {written.length}, {nameOf(last?.by ?? '')},{' '}
      {instantText(last?.at ?? '', laboratory.timeZone)}: {last?.reason}
    </span>
  );
}
