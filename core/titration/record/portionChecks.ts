import { arrangementOf, isAnalysis } from '../setUp';
import type { DecimalText } from '../../measurement';
import type { Weighing } from '../../metrology';
import { checkWeighing, netMassG } from '../../metrology';
import type { Finding } from '../../record';
import { impossible, unlikely } from '../../record';
import { forecastTitre } from '../figures';
import type { RunState } from '../run';

/** A titre of more burettes than this is more likely a decimal point than a large portion. */
const TENFOLD = 4;

/** Below this part of the burette a titre is mostly reading error. */
const TOO_SMALL_PART = 0.1;

/** What speaks against a mass: sign, range and digits of the balance, and the titre that it would take. */
export function checkWeighingOf(run: RunState, weighing: Weighing): readonly Finding[] {
  const { measuredWith } = arrangementOf(run.references).portion;
  if (measuredWith.type !== 'balance') {
    return [impossible('not-weighed', 'massG')];
  }
  const found = checkWeighing(weighing, measuredWith);
  if (found.some(({ severity }) => severity === 'impossible')) return found;
  const field = weighing.mode === 'tared' ? 'massG' : 'afterG';
  return [...found, ...checkAgainstPlan(run, Number(netMassG(weighing)), 'mass', field)];
}

/** What speaks against a volume: the vessel, and the titre that it would take. */
export function checkAliquot(run: RunState, volumeMl: DecimalText): readonly Finding[] {
  const vessel = arrangementOf(run.references).portion.measuredWith;
  if (vessel.type === 'balance') {
    return [impossible('not-pipetted', 'volumeMl')];
  }
  if (Number(volumeMl) <= 0) {
    return [impossible('no-volume', 'volumeMl')];
  }
  if (vessel.type === 'burette' && Number(volumeMl) > Number(vessel.capacityMl)) {
    return [
      impossible('over-capacity', 'volumeMl', {
        vessel: vessel.name,
        capacityMl: vessel.capacityMl,
      }),
    ];
  }
  if (vessel.type === 'glassware' && Number(volumeMl) !== Number(vessel.volumeMl)) {
    return [
      unlikely('other-volume', 'volumeMl', { vessel: vessel.name, volumeMl: vessel.volumeMl }),
    ];
  }
  return checkAgainstPlan(run, Number(volumeMl), 'aliquot', 'volumeMl');
}

/** Compares a portion with what the burette can titrate, at the molarity known so far. */
function checkAgainstPlan(
  run: RunState,
  amount: number,
  what: 'mass' | 'aliquot',
  field: string,
): readonly Finding[] {
  const capacityMl = Number(run.references.burette.capacityMl);
  const { titreMl: titre } = forecastTitre(run, amount, null);
  if (titre > capacityMl) {
    const isTenfold = titre > TENFOLD * capacityMl;
    return [unlikely('portion-too-large', field, { what, titreMl: titre, capacityMl, isTenfold })];
  }
  // Small titres are daily work where samples are analysed: what matters there is U.
  if (titre >= TOO_SMALL_PART * capacityMl || (titre > 0 && isAnalysis(run.references))) return [];
  const code = run.references.excess ? 'excess-used-up' : 'portion-too-small';
  return [unlikely(code, field, { what, titreMl: titre })];
}
