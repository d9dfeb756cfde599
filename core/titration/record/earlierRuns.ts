import type { FewRules } from '../../laboratory';
import { rulesFromLot, rulesOfLot, toEarlierRules } from '../../laboratory';
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

const withFurtherRules = rulesOfLot(1);

/** There were no back-titrations. */
function toRunWithoutExcess(body: unknown): unknown {
  return { ...withFurtherRules(body), excess: null };
}

/** Volumes were as read, whatever the temperature; nobody looked back at earlier series. */
function toRunAsRead(body: unknown): unknown {
  const nothing = { thermometer: null, airDensityKgPerM3: null, earlierSeries: null };
  return { ...(body as object), ...nothing };
}

/** A step for what a certificate holds. */
function inCertificate(step: UpcastStep): UpcastStep {
  return (body) => ({ certificate: step((body as { readonly certificate: unknown }).certificate) });
}

/** Certificates stated molarities only. */
function toCertificateWithoutNormality(certificate: unknown): unknown {
  return { ...withFurtherRules(certificate), normality: null };
}

/** Nobody compared the rules of a run with those in force, and its analyst was whoever set it up. */
function toCertificateOfOneAnalyst(certificate: unknown): unknown {
  const { analystId, ...rest } = certificate as { readonly analystId: string };
  return { ...rest, analystIds: [analystId], deviations: [] };
}

/** Certificates listed masses of a lot, by their numbers. */
function toCertificateOfPortions(certificate: unknown): unknown {
  const { standardLot, balance, rules, replicates, ...rest } = certificate as {
    readonly standardLot: string;
    readonly balance: string;
    readonly rules: FewRules;
    readonly replicates: readonly { readonly massG: string }[];
  };
  return {
    ...rest,
    standard: `lot ${standardLot}`,
    measuredWith: balance,
    rules: toEarlierRules(rules),
    replicates: replicates.map(({ massG, ...replicate }) => ({
      ...replicate,
      portion: `${massG} g`,
    })),
  };
}

/** Nothing was corrected, and nobody kept what a result rests on. */
function toCertificateAsRead(certificate: unknown): unknown {
  return { ...(certificate as object), restsOn: [], corrections: null };
}

/** One person certified, and nobody else signed. */
function toCertificateSignedOnce(certificate: unknown): unknown {
  return { ...(certificate as object), signatures: [], isIndependent: null };
}

/** From the first shape of a run's set-up to that of today. */
export const EARLIER_SET_UPS: readonly UpcastStep[] = [
  toRunWithStandard,
  toRunWithoutExcess,
  rulesOfLot(2),
  rulesOfLot(3),
  toRunAsRead,
  ...rulesFromLot(4),
];

/** From the first shape of a certificate to that of today. */
export const EARLIER_CERTIFICATES: readonly UpcastStep[] = [
  toCertificateOfPortions,
  toCertificateWithoutNormality,
  rulesOfLot(2),
  toCertificateOfOneAnalyst,
  rulesOfLot(3),
  toCertificateAsRead,
  rulesOfLot(4),
  toCertificateSignedOnce,
  ...rulesFromLot(5),
].map(inCertificate);
