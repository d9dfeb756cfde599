import { roundHalfEven, roundSignificant } from '../measurement';
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
    `${massG} g on ${balance} are uncertain by ${roundSignificant(percent, 2)} %: too coarse for a standard.`,
  'not-dissolved': ({ lotNumber }: { lotNumber: string }) => `Lot ${lotNumber} is a solid.`,
  'lot-expired': ({ name, useBy }: { name: string; useBy: string }) =>
    `${name} is past its use-by date, ${useBy}.`,
  'wrong-bottle': ({ name }: { name: string }) => `${name} holds another substance.`,
  'bottle-expired': ({ name }: { name: string }) => `${name} is past its last day.`,
  'not-weaker': ({ code }: { code: string }) =>
    `Bottle ${code} is no weaker than what is wanted: adding a stronger one to it does not help.`,
  'figure-needed': () => 'Without this figure there is no molarity.',
  'left-out': () => 'Say why this step is left out.',
  'must-be-measured': () => 'Write down what was measured.',
  'too-early': ({ waitMinutes, leftMinutes }: { waitMinutes: number; leftMinutes: number }) =>
    `This takes ${String(waitMinutes)} minutes, of which ${String(leftMinutes)} are left. If you go on now, say why.`,
  'out-of-order': ({ text }: { text: string }) =>
    `“${text}” comes before this. If it was not done, say why.`,
  'no-entry-to-replace': () => 'There is no such entry to correct.',
  correction: () => 'Say why it is corrected.',
  'not-measured-here': () => 'This step does not measure that.',
  'volume-off-plan': ({ targetMl }: { targetMl: number }) =>
    `${roundSignificant(targetMl, 3)} mL were planned. If it stands, say why.`,
  'no-room-temperature': () => 'A laboratory is between 5 and 40 °C.',
  'off-20': () => 'Flasks are marked for 20 °C: let it come nearer, or say why it is filled now.',
  'preparation-over': ({ status }: { status: string }) => `This preparation is ${status} already.`,
  spoilt: ({ incident, reason }: { incident: string; reason: string }) =>
    `Discard it: ${incident}. ${reason}`,
  'entries-contradict': () =>
    'Two entries for one figure contradict each other: correct one of them first.',
  'figure-missing': () => 'A figure is missing that the molarity needs.',
  'not-finished': ({ text }: { text: string }) => `“${text}” is not done. Say why.`,
  'mass-off-plan': ({
    targetG,
    decimals,
    slip,
  }: {
    targetG: number;
    decimals: number;
    slip: (SlipSaid & { readonly meant: number }) | null;
  }) => {
    const planned = `${roundHalfEven(targetG, Math.min(decimals, 4))} g were planned.`;
    return slip
      ? `${planned} ${slipQuestion(slip)} Then ${roundHalfEven(slip.meant, decimals)} g was meant.`
      : `${planned} If it stands, say why.`;
  },
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
    `${name} has ${roundSignificant(strength, 3)} mol/L: ${target} mol/L cannot be made from it by diluting.`,
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
    `Only ${roundSignificant(left, 3)} ${unit} of ${name} are left and ${roundSignificant(needed, 3)} ${unit} are needed. If there is more, count it first.`,
};
