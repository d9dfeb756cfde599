import { AcidBaseCurve } from '#core/equilibrium';
import { roundHalfEven } from '#core/measurement';
import type { Flask, RunState } from '#core/titration/run';
import { amountIn, electrodeQuantityOf, plainDeterminationOf } from '#core/titration/figures';
import type { Bench } from './bench';

/** In the flask at the start, mL. */
const WATER_ML = 60;

/** Successive pKa of phthalic acid at 25 °C, of which the weighed salt has one proton left. */
const PHTHALIC_PKA = [2.95, 5.41];

/** Scatter of a pH that stands still. */
const NOISE_PH = 0.01;

/** How far apart the points near the end are, mL. */
const CLOSE_ML = 0.05;

/** Volumes at which a pH is read: far apart, then close, and three beyond the end. */
function volumesFor(endMl: number): readonly number[] {
  const coarse = Array.from({ length: 6 }, (_, i) => ((endMl - 0.6) * i) / 6);
  const close = Array.from({ length: 17 }, (_, i) => endMl + (i - 8) * CLOSE_ML);
  return [...coarse, ...close, ...[1, 1.4, 1.8].map((past) => endMl + past)];
}

/**
 * Follows a titration of weighed phthalate with an electrode; gives the reading of the burette at its last point. The pH
 * is that of the chemistry, with a little scatter.
 */
export async function followByElectrode(
  bench: Bench,
  run: RunState,
  flask: Flask,
): Promise<string> {
  // A titrant of 1 mol/L takes as many millilitres as there are millimoles.
  const amountMmol = plainDeterminationOf(run.references).titreMl(amountIn(flask), 1);
  const curve = new AcidBaseCurve({
    flask: {
      volumeMl: WATER_ML,
      systems: [
        {
          name: 'phthalic acid',
          totalMolPerL: amountMmol / WATER_ML,
          pKa: PHTHALIC_PKA,
          chargeFullyProtonated: 0,
          protonsAtStart: 1,
        },
      ],
    },
    titrant: { kind: 'strong-base', molarityMolPerL: bench.trueMolarity },
    kw: 1e-14,
    activity: { kind: 'ideal' },
  });
  const startMl = Number(flask.initial?.value);
  let last = '';
  for (const volumeMl of volumesFor(amountMmol / bench.trueMolarity)) {
    const readingMl = roundHalfEven(startMl + volumeMl, 2);
    const { pH } = curve.at(Number(readingMl) - startMl);
    await bench.enter({
      kind: 'run.electrode-read',
      body: {
        flask: flask.number,
        refill: 0,
        readingMl,
        quantity: electrodeQuantityOf(run.references.method),
        value: roundHalfEven(pH + NOISE_PH * bench.chance.normal(), 2),
        flaskVolumeMl: String(WATER_ML),
      },
    });
    last = readingMl;
  }
  return last;
}
