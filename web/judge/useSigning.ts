import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Signing } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import type { CertifyRequest, SignRequest } from '#contract';
import { FILE_MS, tell } from '../app/api';
import { deviceStamp } from '../app/device';
import { useReadAnew } from '../app/useReadAnew';

/** What each kind of signature is asked for with. */
interface Requests {
  readonly signatures: SignRequest;
  readonly certificate: CertifyRequest;
}

/** What a request says of the run and of the device. */
type Common = 'basedOn' | 'draft' | keyof ReturnType<typeof deviceStamp>;

/** Asks the server for a signature, for the draft that is shown; then the run is read anew. It never waits in the outbox. */
export function useSigning<Path extends keyof Requests>(
  run: RunState,
  { draft }: Signing,
  path: Path,
) {
  const client = useQueryClient();
  const readAnew = useReadAnew();
  return useMutation({
    mutationFn: (asked: Omit<Requests[Path], Common>) =>
      tell(
        'POST',
        `/runs/${run.id}/${path}`,
        { ...deviceStamp(), basedOn: run.version, draft, ...asked },
        FILE_MS,
      ),
    onSettled: () =>
      Promise.all([client.invalidateQueries({ queryKey: ['run', run.id] }), readAnew()]),
  });
}
