import type { DecimalText } from '../../measurement';
import { roundHalfEven } from '../../measurement';
import type { Weighing } from '../../metrology';
import { checkWeighing, netMassG } from '../../metrology';
import type { Finding } from '../../record';
import { impossible, unlikely } from '../../record';
import { forecastTitre } from '../figures';
import type { RunState } from '../run';

/** Below this part of the burette a titre is mostly reading error. */
const TOO_SMALL_PART = 0.1;

/** What speaks against a mass: sign, range and digits of the balance, and the titre that it would take. */
export function checkWeighingOf(run: RunState, weighing: Weighing): readonly Finding[] {
  const { standard } = run.references;
  if (standard.kind !== 'lot') {
    return [impossible('not-weighed', 'massG', 'This run takes aliquots: nothing is weighed.')];
  }
  const found = checkWeighing(weighing, standard.balance);
  if (found.some(({ severity }) => severity === 'impossible')) return found;
  const field = weighing.mode === 'tared' ? 'massG' : 'afterG';
  return [...found, ...checkAgainstPlan(run, Number(netMassG(weighing)), 'mass', field)];
}

/** What speaks against a volume: the vessel, and the titre that it would take. */
export function checkAliquot(run: RunState, volumeMl: DecimalText): readonly Finding[] {
  const { standard } = run.references;
  if (standard.kind !== 'bottle') {
    return [impossible('not-pipetted', 'volumeMl', 'This run weighs its standard.')];
  }
  const vessel = standard.vessel.equipment;
  if (Number(volumeMl) <= 0) {
    return [impossible('no-volume', 'volumeMl', 'The volume must be more than 0 mL.')];
  }
  if (vessel.type === 'burette' && Number(volumeMl) > Number(vessel.capacityMl)) {
    const message = `${vessel.name} holds ${vessel.capacityMl} mL.`;
    return [impossible('over-capacity', 'volumeMl', message)];
  }
  if (vessel.type === 'glassware' && Number(volumeMl) !== Number(vessel.volumeMl)) {
    const message = `${vessel.name} delivers ${vessel.volumeMl} mL. Was it another pipette?`;
    return [unlikely('other-volume', 'volumeMl', message)];
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
  const plainTitre = titre >= 100 ? roundHalfEven(titre, 0) : roundHalfEven(titre, 1);
  if (titre > capacityMl) {
    const tenfold = titre > 4 * capacityMl ? ' Is the decimal point in its place?' : '';
    const message = `This ${what} would take ${plainTitre} mL, more than the burette's ${run.references.burette.capacityMl} mL.${tenfold}`;
    return [unlikely(`${what}-too-large`, field, message)];
  }
  if (titre < TOO_SMALL_PART * capacityMl && run.references.excess) {
    const left = titre > 0 ? `only ${plainTitre} mL would be left` : 'nothing would be left';
    const message = `This ${what} uses up the excess: ${left} to titrate. Take less of it, or more of the reagent.`;
    return [unlikely(`${what}-too-large`, field, message)];
  }
  if (titre < TOO_SMALL_PART * capacityMl) {
    const message = `This ${what} would take only ${plainTitre} mL; reading errors would dominate. Is the decimal point in its place?`;
    return [unlikely(`${what}-too-small`, field, message)];
  }
  return [];
}
