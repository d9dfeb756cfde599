import { isAnalysis } from '../setUp';
import type { Input } from '../../measurement';
import { combineComponents, decimalOf, figureText, propagate } from '../../measurement';
import { lotPurityComponent } from '../../reagent';
import { meanOf } from '../../statistics';
import type { Judgement, Result } from '../judging';
import type { RunState } from '../run';
import { isBlank, titreMl } from '../run';

/** A change of the work, and what the uncertainty would be with it. */
export interface Change {
  readonly what: string;
  /** Expanded uncertainty, in the unit of the result. */
  readonly expandedUncertainty: number;
  /** In parts of the present one: 0.5 halves it. */
  readonly ofPresent: number;
}

/** By what the standard uncertainty of an input is multiplied. */
type Scale = (input: Input) => number;

interface Way {
  readonly what: string;
  readonly scale: Scale;
}

/** A titre fills a burette well and leaves room, in parts of its capacity. */
const GOOD_FILLING = 0.8;

/** What reads and ends a titration: the longer it is, the less of it they are. */
const OF_THE_TITRE: ReadonlySet<string> = new Set([
  'Readings',
  'End point',
  'End point, common',
  'Burette tolerance',
  'Burette calibration',
  'Balance',
]);

/** What a good calibration of a burette states, mL, k = 2. */
const CALIBRATED_TO_ML = 0.01;

/** To what the content of a reference material is usually known, as a half-width. */
const REFERENCE_MATERIAL = 0.0002;

/** What is left of a temperature that nobody measured, when a thermometer reads it. */
const THERMOMETER_LEAVES = 0.2;

/**
 * What would make U smaller, the cheapest first, each recomputed by the measurement model with the inputs that it touches scaled;
 * the last is all of them together.
 */
export function smallerU(run: RunState, judgement: Judgement, result: Result): readonly Change[] {
  const ways = [
    ...temperatureWay(run),
    ...portionWay(run),
    ...replicatesWay(judgement),
    ...buretteWay(run),
    ...lotWay(run),
  ];
  const together: readonly Way[] =
    ways.length > 1
      ? [
          {
            what: 'All of this together',
            scale: (given) => ways.reduce((product, { scale }) => product * scale(given), 1),
          },
        ]
      : [];
  const muted = new Set(result.mutedInputIds);
  const present = result.evaluation.expandedUncertainty;
  return [...ways, ...together].map(({ what, scale }) => {
    const { expandedUncertainty } = propagate(result.model, result.evaluation.unit, {
      correlations: result.correlations,
      isMuted: ({ id }) => muted.has(id),
      scale,
      ...(run.setUp.rules.coverage === 'two' && { coverageFactor: 2 }),
    });
    return { what, expandedUncertainty, ofPresent: expandedUncertainty / present };
  });
}

function temperatureWay({ references: { thermometer } }: RunState): readonly Way[] {
  if (thermometer) return [];
  return [
    {
      what: 'Read the temperature of the titrant on a thermometer',
      scale: ({ effect }) => (effect === 'Temperature' ? THERMOMETER_LEAVES : 1),
    },
  ];
}

function portionWay({ references: { burette }, flasks }: RunState): readonly Way[] {
  const titres = flasks
    .filter((flask) => !isBlank(flask) && !flask.voided && !flask.isRough)
    .flatMap((flask) => titreMl(flask) ?? [])
    .map(Number);
  if (titres.length === 0) return [];
  const mean = meanOf(titres);
  const good = GOOD_FILLING * Number(burette.capacityMl);
  const ratio = mean / good;
  if (ratio >= 1) return [];
  return [
    {
      what: `Take portions for a titre of about ${String(Math.round(good))} mL instead of ${String(Math.round(mean))} mL`,
      scale: ({ effect }) => (OF_THE_TITRE.has(effect) ? ratio : 1),
    },
  ];
}

function replicatesWay({ averaged }: Judgement): readonly Way[] {
  if (!averaged) return [];
  return [
    {
      what: `Titrate ${String(2 * averaged.n)} times instead of ${String(averaged.n)}`,
      scale: ({ effect, variation }) =>
        effect === 'Repeatability' || variation === 'by-replicate' ? Math.SQRT1_2 : 1,
    },
  ];
}

function buretteWay({ references: { burette } }: RunState): readonly Way[] {
  if (burette.calibration) return [];
  return [
    {
      what: `Have the burette calibrated to ± ${figureText(decimalOf(CALIBRATED_TO_ML))} mL (k = 2)`,
      scale: ({ effect, components }) => {
        if (effect !== 'Burette tolerance') return 1;
        return Math.min(1, CALIBRATED_TO_ML / 2 / combineComponents(components));
      },
    },
  ];
}

function lotWay({ references }: RunState): readonly Way[] {
  if (isAnalysis(references) || references.standard.kind !== 'lot') return [];
  const { standard } = references;
  const halfWidth = Number(standard.lot.lot.purityHalfWidth);
  if (halfWidth <= REFERENCE_MATERIAL) return [];
  const known = combineComponents([lotPurityComponent(standard.lot.lot)]);
  const better = combineComponents([
    { ...lotPurityComponent(standard.lot.lot), halfWidth: REFERENCE_MATERIAL },
  ]);
  return [
    {
      what: `Weigh a lot known to ± ${figureText(decimalOf(100 * REFERENCE_MATERIAL))} %`,
      scale: ({ effect }) => (effect === 'Purity' ? better / known : 1),
    },
  ];
}
