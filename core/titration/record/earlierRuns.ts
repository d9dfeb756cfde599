import type { FewRules } from '../../laboratory';
import { toEarlierRules, toMoreRules, toRulesOfFlaskAndCurve } from '../../laboratory';
import type { UpcastStep } from '../../record';

/** Standards were weighed, and nobody asked what becomes of an overshot titration. */
function toRunWithStandard(body: unknown): unknown {
  const { methodId, lot, balance, rules, ...rest } = body as {
    readonly methodId: string;
    readonly lot: unknown;
    readonly balance: unknown;
    readonly rules: FewRules;
  };
  return {
    ...rest,
    method: { kind: 'catalogue', id: methodId },
    standard: { kind: 'lot', lot, balance },
    rules: toEarlierRules(rules),
  };
}

/** There were no back-titrations. */
function toRunWithoutExcess(body: unknown): unknown {
  return { ...toMoreRules(body), excess: null };
}

function toCertificateOfFlaskAndCurve(body: unknown): unknown {
  const { certificate } = body as { readonly certificate: unknown };
  return { certificate: toRulesOfFlaskAndCurve(certificate) };
}

/** Certificates stated molarities only. */
function toCertificateWithoutNormality(body: unknown): unknown {
  const { certificate } = body as { readonly certificate: unknown };
  return { certificate: { ...toMoreRules(certificate), normality: null } };
}

/** Nobody compared the rules of a run with those in force, and its analyst was whoever set it up. */
function toCertificateOfOneAnalyst(body: unknown): unknown {
  const { certificate } = body as { readonly certificate: { readonly analystId: string } };
  const { analystId, ...rest } = certificate;
  return { certificate: { ...rest, analystIds: [analystId], deviations: [] } };
}

/** Certificates listed masses of a lot, by their numbers. */
function toCertificateOfPortions(body: unknown): unknown {
  const { certificate } = body as {
    readonly certificate: {
      readonly standardLot: string;
      readonly balance: string;
      readonly rules: FewRules;
      readonly replicates: readonly { readonly massG: string }[];
    };
  };
  const { standardLot, balance, rules, replicates, ...rest } = certificate;
  return {
    certificate: {
      ...rest,
      standard: `lot ${standardLot}`,
      measuredWith: balance,
      rules: toEarlierRules(rules),
      replicates: replicates.map(({ massG, ...replicate }) => ({
        ...replicate,
        portion: `${massG} g`,
      })),
    },
  };
}

/** From the first shape of a run's set-up to that of today. */
export const EARLIER_SET_UPS: readonly UpcastStep[] = [
  toRunWithStandard,
  toRunWithoutExcess,
  toRulesOfFlaskAndCurve,
];

/** From the first shape of a certificate to that of today. */
export const EARLIER_CERTIFICATES: readonly UpcastStep[] = [
  toCertificateOfPortions,
  toCertificateWithoutNormality,
  toCertificateOfFlaskAndCurve,
  toCertificateOfOneAnalyst,
];
