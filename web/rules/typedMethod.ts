import type { Method, Own } from '#core/chemistry';
import { parseDecimal } from '#core/measurement';
import type { HouseRules } from '#core/laboratory';
import { naming } from '../app/ownEntries';
import type { TypedPartners } from './PartnerFields';
import { partnersOf, typedPartners } from './PartnerFields';
import type { TypedPortions } from './PortionFields';
import { portionsOf, typedPortions } from './PortionFields';
import type { TypedRule } from './RuleControl';
import { ruleValues, typedRules } from './RuleControl';

/** A method as its form holds it. */
export interface TypedMethod {
  readonly name: string;
  readonly equations: string;
  readonly indicatorId: string;
  readonly medium: string;
  readonly inFlask: {
    readonly drops: string;
    readonly low: string;
    readonly high: string;
    readonly needsBlank: boolean;
  };
  readonly cautions: string;
  readonly colours: Method['colours'];
  readonly partners: TypedPartners;
  readonly portions: TypedPortions;
  /** What it says otherwise than the house rules. */
  readonly rules: Partial<Record<keyof HouseRules, TypedRule>>;
  readonly reason: string;
}

export function typedMethod(method: Method, isOwn: boolean): TypedMethod {
  return {
    name: isOwn ? method.name : `${method.name}, our way`,
    equations: method.equations.join('\n'),
    indicatorId: method.indicatorId ?? '',
    medium: method.medium,
    inFlask: {
      drops: method.indicatorDrops?.toString() ?? '',
      low: method.flaskTemperatureC?.[0].toString() ?? '',
      high: method.flaskTemperatureC?.[1].toString() ?? '',
      needsBlank: method.needsBlank,
    },
    cautions: method.cautions.join('\n'),
    colours: method.colours,
    partners: typedPartners(method),
    portions: typedPortions(method),
    rules: typedRules(method.rules),
    reason: '',
  };
}

/** The same as a method holds it, for the contract to check; what the form does not show stays. */
export function writtenMethod({ own: _, ...method }: Method, typed: TypedMethod, own: Own) {
  const { partners } = typed;
  const named = [...partners.titrantIds, partners.standardId, typed.indicatorId];
  const { drops, low, high, needsBlank } = typed.inFlask;
  return {
    ...method,
    ...naming(own, [...named, method.excess?.substanceId ?? null]),
    ...partnersOf(partners),
    name: typed.name.trim(),
    equations: linesOf(typed.equations),
    indicatorId: typed.indicatorId === '' ? null : typed.indicatorId,
    indicatorDrops: numberOf(drops),
    medium: typed.medium.trim(),
    flaskTemperatureC:
      low === '' && high === '' ? null : ([numberOf(low) ?? 0, numberOf(high) ?? 0] as const),
    needsBlank,
    colours: typed.colours,
    portions: portionsOf(typed.portions),
    cautions: linesOf(typed.cautions),
    rules: ruleValues(typed.rules),
  };
}

export function linesOf(text: string): string[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
}

function numberOf(typed: string): number | null {
  const text = parseDecimal(typed);
  return text === null ? null : Number(text);
}
