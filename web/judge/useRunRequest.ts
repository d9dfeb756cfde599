import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { RunState } from '#core/titration/run';
import type {
  CertifyRequest,
  ReportRequest,
  SignRequest,
  WithdrawReportRequest,
  WithdrawRequest,
} from '#contract';
import { FILE_MS, tell } from '../app/api';
import { deviceStamp } from '../app/device';
import { useReadAnew } from '../app/useReadAnew';

/** What each request that takes a password is made with. */
interface Requests {
  readonly signatures: SignRequest;
  readonly certificate: CertifyRequest;
  readonly withdrawal: WithdrawRequest;
  readonly report: ReportRequest;
  readonly 'report-withdrawal': WithdrawReportRequest;
}

/** What a request says of the run and of the device. */
type Common = 'basedOn' | keyof ReturnType<typeof deviceStamp>;

/** Asks the server for what takes a password; then the run is read anew. It never waits in the outbox. */
export function useRunRequest<Path extends keyof Requests>(
  run: RunState,
  path: Path,
  onDone?: () => void,
) {
  const client = useQueryClient();
  const readAnew = useReadAnew();
  return useMutation({
    mutationFn: (asked: Omit<Requests[Path], Common>) =>
      tell(
        'POST',
        `/runs/${run.id}/${path}`,
        { ...deviceStamp(), basedOn: run.version, ...asked },
        FILE_MS,
      ),
    ...(onDone && { onSuccess: onDone }),
    onSettled: () =>
      Promise.all([client.invalidateQueries({ queryKey: ['run', run.id] }), readAnew()]),
  });
}
