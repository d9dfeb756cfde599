import type { Plain } from '#core/grammar';
import type { Sample } from '#core/sample';
import { sampleSchema } from '#contract';
import { useContractForm } from '../ui/useContractForm';

/** The form of a sample. */
export function useSampleForm(values: Sample | Plain<Sample>) {
  return useContractForm(sampleSchema, values);
}

export type SampleFields = ReturnType<typeof useSampleForm>;
