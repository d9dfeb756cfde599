import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import * as v from 'valibot';
import type { AroundFact } from '#core/ledger';
import { checkFact, recordKindOf } from '#core/ledger';
import type { Fact, Finding } from '#core/record';
import { objections } from '#core/record';
import type { Id } from '#core/grammar';
import type { NewFact, ProposedFact } from '#contract';
import { newId, proposedFactSchema } from '#contract';
import { asFact } from '../outbox/outbox';
import { useOutbox, useWaiting } from '../outbox/useOutbox';
import { useAround } from './around';
import type { Seen } from './records';
import { makeFact, seenWith } from './records';
import { Refusal } from '../ui/refusal';
import { useSession } from './session';

/** The version of a record before its first fact. */
const NOTHING_YET = 0;

/** A record that a fact is added to, as the author saw it. */
interface Target {
  readonly fact: NewFact;
  readonly recordId: Id;
  /** Its version, with what waits on this device. */
  readonly basedOn: number;
}

/**
 * The one way in which anything is entered: proposed as a fact about what was seen, checked, written down on this device and sent
 * as soon as it can be. Rejects with what speaks against it, and then nothing was written down.
 */
export function useKeeping() {
  const outbox = useOutbox();
  const { person } = useSession();
  return async (
    entry: NewFact,
    seen: Seen,
    check: (fact: Fact) => readonly Finding[],
  ): Promise<void> => {
    const proposed = parsed(makeFact(entry, seen, person.id));
    const against = objections(check(asFact(proposed)), proposed.body);
    if (against.length > 0) throw Refusal.of(against);
    await outbox.keep(proposed);
  };
}

/** Enters a fact of any record, checked as the server will; those of a run that has begun are entered beside it, on the bench. */
function useEntering() {
  const keep = useKeeping();
  const waiting = useWaiting();
  const aroundSoon = useAroundSoon();
  return async ({ fact, recordId, basedOn }: Target): Promise<void> => {
    const around = await aroundSoon();
    const seen = seenWith({ id: recordId, version: basedOn }, waiting);
    await keep(fact, seen, (proposed) => {
      const kind = recordKindOf(proposed.kind);
      const isFirst = basedOn === NOTHING_YET;
      const state = isFirst || kind === 'run' ? null : around.now(kind, recordId);
      return checkFact(proposed, state, around);
    });
  };
}

/** Whoever is quicker than the reading of the records waits for it so long, looked at so often, ms. */
const READ_WITHIN_MS = 10_000;
const LOOK_EVERY_MS = 50;

/** What is around, as soon as it has been read. @throws Refusal when it is not read in time */
export function useAroundSoon(): () => Promise<AroundFact> {
  const around = useAround();
  const latest = useRef(around);
  useEffect(() => {
    latest.current = around;
  }, [around]);
  return async () => {
    for (let waitedMs = 0; waitedMs < READ_WITHIN_MS; waitedMs += LOOK_EVERY_MS) {
      if (latest.current) return latest.current;
      await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
    }
    throw new Refusal('The records have not been read yet. Try again.', []);
  };
}

/** The entry as the contract reads it. @throws Refusal for what is not one */
function parsed(proposed: ProposedFact): ProposedFact {
  const result = v.safeParse(proposedFactSchema, proposed);
  if (result.success) return result.output;
  const fields = result.issues.map((issue) => ({
    field: v.getDotPath(issue) ?? '',
    message: issue.message,
  }));
  const [first, ...others] = fields;
  const message = 'Something is not filled in right: look at the fields.';
  throw new Refusal(first && others.length === 0 ? first.message : message, fields);
}

/** Begins a new record with its first fact; gives the record's id. What was typed stays in the form if it fails. */
export function useBeginRecord() {
  const enter = useEntering();
  return useMutation({
    mutationFn: async (fact: NewFact) => {
      const recordId = newId();
      await enter({ fact, recordId, basedOn: NOTHING_YET });
      return recordId;
    },
  });
}

/** Begins new records that belong together, in their order, each under the id that it was given. */
export function useBeginRecords() {
  const enter = useEntering();
  return useMutation({
    mutationFn: async (begun: readonly { readonly recordId: Id; readonly fact: NewFact }[]) => {
      for (const { recordId, fact } of begun) {
        await enter({ fact, recordId, basedOn: NOTHING_YET });
      }
    },
  });
}

/** Adds a fact to a record that is there; rejects with what speaks against it. */
export function useAddToRecord() {
  return useMutation({ mutationFn: useEntering() });
}
