import type { PlainDate } from '../laboratory';
import { isCalibrationOverdue } from '../metrology';
import { freshnessOf, isLotExpired, mayBeUsed } from '../reagent';
import type { Finding } from '../record';
import { impossible, unlikely } from '../record';
import { instrumentOf, standardSubstanceId } from './standard';
import type { RunReferences } from './state';

/** What speaks against starting a run with these records today. */
export function checkRunStart(references: RunReferences, today: PlainDate): readonly Finding[] {
  const { method, bottle, standard, burette } = references;
  const findings: Finding[] = [];
  if (!method.titrantIds.includes(bottle.substanceId)) {
    findings.push(
      impossible(
        'wrong-titrant',
        'bottle',
        'This method does not standardize what is in the bottle.',
      ),
    );
  }
  if (method.standardId !== standardSubstanceId(standard)) {
    const message = 'This is not the standard that the method asks for.';
    findings.push(impossible('wrong-standard', 'standard', message));
  }
  findings.push(...checkStandard(references, today));
  const instruments = [
    ['instrument', instrumentOf(standard)] as const,
    ['burette', burette] as const,
  ];
  for (const [field, item] of instruments) {
    if (isCalibrationOverdue(item, today)) {
      findings.push(
        unlikely(
          'calibration-overdue',
          field,
          `The calibration of ${item.name} was due on ${item.calibrationDue ?? ''}.`,
        ),
      );
    }
  }
  return findings;
}

function checkStandard(
  { method, bottle, standard }: RunReferences,
  today: PlainDate,
): readonly Finding[] {
  const takes = standard.kind === 'lot' ? 'weighed' : 'aliquot';
  if (!method.portions.some(({ kind }) => kind === takes)) {
    const message = `This method takes no ${takes === 'weighed' ? 'weighed standard' : 'aliquots'}.`;
    return [impossible('wrong-portion', 'standard', message)];
  }
  if (standard.kind === 'lot') {
    const { lot } = standard.lot;
    if (lot.dissolved) {
      return [impossible('not-solid', 'standard', `Lot ${lot.lotNumber} is a solution.`)];
    }
    const message = `Lot ${lot.lotNumber} is past its use-by date, ${lot.useBy ?? ''}.`;
    return isLotExpired(lot, today) ? [unlikely('lot-expired', 'standard', message)] : [];
  }
  const { code, id } = standard.bottle;
  if (id === bottle.id) {
    return [impossible('same-bottle', 'standard', 'A bottle cannot be its own standard.')];
  }
  const freshness = freshnessOf(standard.bottle, today);
  if (!('known' in freshness)) {
    const message = `The molarity of bottle ${code} is only nominal: standardize it first.`;
    return [impossible('not-standardized', 'standard', message)];
  }
  if (mayBeUsed(freshness)) return [];
  const message = `Bottle ${code} is past its last day, ${freshness.known.until ?? ''}.`;
  return [unlikely('standard-overdue', 'standard', message)];
}
