import { figureText } from '../../measurement';
import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import { provenance } from '../../record';
import type { ElectrodeQuantity } from '../run';
import type { RunFactTable } from './draft';
import { checkElectrodeReading } from './readingChecks';
import { unknownEntry } from './refusals';

/** The points of a curve. */
export interface ElectrodeBodies {
  /**
   * What an electrode in the flask showed at a reading of the burette, after so many refills of this titration. `flaskVolumeMl`
   * is what was in the flask at the start, water included, where it is known.
   */
  'run.electrode-read': {
    readonly flask: number;
    readonly refill: number;
    readonly readingMl: DecimalText;
    readonly quantity: ElectrodeQuantity;
    readonly value: DecimalText;
    readonly flaskVolumeMl: DecimalText | null;
  };
  /** A point of the curve that does not count. */
  'run.electrode-reading-struck': { readonly strikes: Id; readonly reason: string };
}

export const ELECTRODE_FACTS: RunFactTable<ElectrodeBodies> = {
  'run.electrode-read': {
    nature: 'observation',
    check: ({ body }, run) => checkElectrodeReading(run, body),
    apply: (draft, fact) => {
      const { flask: number, ...read } = fact.body;
      const flask = draft.flasks.get(number);
      if (!flask) return;
      flask.electrode = [...flask.electrode, { ...provenance(fact), ...read, struck: null }];
    },
    sentence: ({ flask, readingMl, quantity, value }) =>
      `flask ${String(flask)}, ${quantity} ${figureText(value)} at ${figureText(readingMl)} mL.`,
  },
  'run.electrode-reading-struck': {
    nature: 'decision',
    names: ({ strikes }) => [strikes],
    check: ({ body: { strikes } }, run) => {
      const points = run.flasks.flatMap(({ electrode }) => electrode);
      const isThere = points.some(({ factId, struck }) => factId === strikes && !struck);
      return isThere ? [] : [unknownEntry('strikes')];
    },
    // A point that does not count stays to be read, with why.
    apply: (draft, fact) => {
      const { strikes, reason } = fact.body;
      const struck = { ...provenance(fact), reason };
      for (const flask of draft.flasks.values()) {
        flask.electrode = flask.electrode.map((read) =>
          read.factId === strikes && !read.struck ? { ...read, struck } : read,
        );
      }
    },
    sentence: () => 'a point of the curve struck out.',
  },
};
