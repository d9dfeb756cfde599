import * as v from 'valibot';
import type { Plain } from '#core/grammar';
import type { Sample } from '#core/sample';
import { sampleSchema } from '#contract';
import { useContractForm } from '../ui/useContractForm';

/** What is typed of a sample: which of the laboratory's own analyses it names follows from what it is asked for. */
const typedSchema = v.omit(sampleSchema, ['own']);

/** The form of a sample. */
export function useSampleForm({ own: _, ...values }: Sample | Plain<Sample>) {
  return useContractForm(typedSchema, values);
}

export type SampleFields = ReturnType<typeof useSampleForm>;
