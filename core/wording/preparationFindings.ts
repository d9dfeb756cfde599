import { figureText, roundHalfEven, roundSignificant } from '../measurement';
import { minutesText } from './minutes';
import type { SlipSaid } from './slips';
import { slipQuestion } from './slips';

/** What speaks against entries of a preparation. */
export const PREPARATION_FINDINGS = {
  'preparation-closed': ({ status }: { status: string }) =>
    `This preparation is ${status}; nothing can be added.`,
  'unknown-mishap': () => 'There is no such incident in the list.',
  'unknown-step': () => 'This preparation has no such step.',
  'balance-too-coarse': ({
    massG,
    balance,
    percent,
  }: {
    massG: string;
    balance: string;
    percent: number;
  }) =>
    `${figureText(massG)} g on ${balance} are uncertain by ${figureText(roundSignificant(percent, 2))} %: too coarse for a standard.`,
  'not-dissolved': ({ lotNumber }: { lotNumber: string }) => `Lot ${lotNumber} is a solid.`,
  'lot-expired': ({ name, useBy }: { name: string; useBy: string }) =>
    `${name} is past its use-by date, ${useBy}.`,
  'wrong-bottle': ({ name }: { name: string }) => `${name} holds another substance.`,
  'bottle-expired': ({ name }: { name: string }) => `${name} is past its last day.`,
  'not-settled': ({ name, from }: { name: string; from: string }) =>
    `${name} is clear from ${from}: its carbonate is still settling. To take from it now, give a reason.`,
  'not-weaker': ({ code }: { code: string }) =>
    `Bottle ${code} is not weaker than the target, so a stronger solution cannot be brought down with it.`,
  'figure-needed': () => 'Without this figure there is no molarity.',
  'left-out': () => 'Give a reason for leaving out this step.',
  'must-be-measured': () => 'Write down what was measured.',
  'too-early': ({ waitMinutes, leftMinutes }: { waitMinutes: number; leftMinutes: number }) =>
    `This step takes ${minutesText(waitMinutes)}; ${minutesText(leftMinutes)} remain. To go on now, give a reason.`,
  'wait-not-begun': ({ waitMinutes }: { waitMinutes: number }) =>
    `This step takes ${minutesText(waitMinutes)}, and nobody noted when it began. To mark it done now, give a reason.`,
  'out-of-order': ({ text }: { text: string }) =>
    `“${text}” comes before this step. If it was left out, give a reason.`,
  'no-entry-to-replace': () => 'There is no such entry to correct.',
  correction: () => 'Give a reason for the correction.',
  'not-measured-here': () => 'This step does not measure that.',
  'volume-off-plan': ({ targetMl }: { targetMl: number }) =>
    `${figureText(roundSignificant(targetMl, 3))} mL was planned. To keep this volume, give a reason.`,
  'no-room-temperature': () => 'A laboratory temperature lies between 5 and 40 °C.',
  'off-20': () =>
    'Volumetric flasks are calibrated at 20 °C. Let the solution come nearer to that, or give a reason for filling now.',
  'preparation-over': ({ status }: { status: string }) => `This preparation is already ${status}.`,
  spoilt: ({ incident, reason }: { incident: string; reason: string }) =>
    `Discard it: ${incident}. ${reason}`,
  'entries-contradict': () =>
    'Two entries for one figure contradict each other: correct one of them first.',
  'figure-missing': () => 'A figure that the molarity depends on is missing.',
  'not-finished': ({ text }: { text: string }) => `“${text}” has not been done. Give a reason.`,
  'mass-off-plan': ({
    targetG,
    decimals,
    slip,
  }: {
    targetG: number;
    decimals: number;
    slip: (SlipSaid & { readonly meant: number }) | null;
  }) => {
    const planned = `${figureText(roundHalfEven(targetG, Math.min(decimals, 4)))} g was planned.`;
    return slip
      ? `${planned} ${slipQuestion(slip)} If so, ${figureText(roundHalfEven(slip.meant, decimals))} g was meant.`
      : `${planned} To keep this mass, give a reason.`;
  },
  'does-not-dissolve': ({
    substance,
    solubilityMolPerL,
  }: {
    substance: string;
    solubilityMolPerL: number;
  }) =>
    `At most about ${figureText(solubilityMolPerL)} mol/L of ${substance} dissolve at 20 °C. Choose a weaker solution.`,
  'lot-of-another': ({ name, other }: { name: string; other: string }) => `${name} is ${other}.`,
  'cannot-concentrate': ({
    name,
    strength,
    target,
  }: {
    name: string;
    strength: number;
    target: string;
  }) =>
    `${name} has ${figureText(roundSignificant(strength, 3))} mol/L: ${figureText(target)} mol/L cannot be made from it by diluting.`,
  'not-enough': ({
    name,
    unit,
    left,
    needed,
  }: {
    name: string;
    unit: 'g' | 'mL';
    left: number;
    needed: number;
  }) =>
    `Only ${figureText(roundSignificant(left, 3))} ${unit} of ${name} are left and ${figureText(roundSignificant(needed, 3))} ${unit} are needed. If there is more, count it first.`,
};
