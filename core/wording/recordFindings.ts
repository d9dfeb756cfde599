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
  'excess-not-left': ({ entryId }: { entryId: string }) =>
    `${entryId}: the burette titrates what is left.`,
  'bad-entry': ({ entryId, why }: { entryId: string; why: string }) => `${entryId}: ${why}`,
  'no-such-entry': ({ entryId, id }: { entryId: string; id: string }) =>
    `${entryId}: there is no entry ${id}.`,
  'id-twice': ({ id }: { id: string }) => `${id}: two entries have this id.`,
};
