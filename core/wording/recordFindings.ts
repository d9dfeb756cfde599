import type { Action } from '../rights';
import { whyNot } from '../rights';
import { endOfSentence } from './reason';

/** What speaks against entries of any record. */
export const RECORD_FINDINGS = {
  'not-found': () => 'There is no such record.',
  'exists-already': () => 'This record already exists.',
  'unknown-reference': ({ kind, isAtVersion }: { kind: string; isAtVersion: boolean }) =>
    `There is no such ${kind}${isAtVersion ? ' at this version' : ''}.`,
  'not-in-catalogue': ({ kind }: { kind: 'substance' | 'method' | 'recipe' }) =>
    `The catalogue has no such ${kind}.`,
  'recipe-does-not-fit': () => 'This recipe makes it in another way, or makes something else.',
  'not-a': ({ kind }: { kind: string }) => `This is not a ${kind.replaceAll('-', ' ')}.`,
  'not-a-number': ({ examples }: { examples: readonly string[] }) =>
    examples.length > 1
      ? `Write plain numbers, such as ${examples.join(' and ')}.`
      : `Write a plain number, such as ${examples.join()}, with a decimal point or comma.`,
  'not-allowed': ({ action }: { action: Action }) => whyNot(action),
  'rested-on': () =>
    'Other records already use it, so its kind cannot change. Take it out of use and register it again.',
  'out-of-use': ({ name, reason }: { name: string; reason: string }) =>
    `${name} is out of use: ${endOfSentence(reason)}`,
  'out-of-use-already': () => 'It is already out of use.',
  'in-use-already': () => 'It is already in use.',
  'excess-not-left': ({ entry }: { entry: string }) =>
    `${entry}: the burette titrates what is left.`,
  'bad-entry': ({ entry, why }: { entry: string; why: string }) => `${entry}: ${why}`,
  'no-such-entry': ({ entry, id }: { entry: string; id: string }) =>
    `${entry}: there is no entry ${id}.`,
  'range-downwards': ({ entry }: { entry: string }) =>
    `${entry}: a range goes from the lower value to the higher one.`,
  'colours-do-not-fit': ({ entry }: { entry: string }) =>
    `${entry}: each change has a colour before it and one after it.`,
  'step-lacking': ({ entry, work }: { entry: string; work: string }) =>
    `${entry}: a step is missing, “${work}”.`,
  'label-not-last': ({ entry }: { entry: string }) =>
    `${entry}: the last step is the label, so that no bottle stands without one.`,
  'id-not-of-record': () => 'An entry has the id of its record.',
  'entry-differs': ({ name }: { name: string }) =>
    `${name} is not as its entry in the catalogue says.`,
  'name-taken-by-entry': ({ name }: { name: string }) =>
    `The catalogue has ${name} already: give yours another name.`,
  'id-twice': ({ id }: { id: string }) => `${id}: two entries have this id.`,
};
