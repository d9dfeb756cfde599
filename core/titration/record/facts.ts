import type { FactOf } from '../../record';
import { impossible } from '../../record';
import type { RunSetUp } from '../setUp';
import type { CorrectionBodies } from './corrections';
import { CORRECTION_FACTS } from './corrections';
import type { CourseBodies } from './course';
import { COURSE_FACTS } from './course';
import type { RunFactDefinition } from './draft';
import type { ElectrodeBodies } from './electrode';
import { ELECTRODE_FACTS } from './electrode';
import type { EndPointBodies } from './endPoints';
import { END_POINT_FACTS } from './endPoints';
import type { NoteBodies } from './notes';
import { NOTE_FACTS } from './notes';
import type { PortionBodies } from './portions';
import { PORTION_FACTS } from './portions';
import type { ReadingBodies } from './readings';
import { READING_FACTS } from './readings';
import type { ReportingBodies } from './reporting';
import { REPORTING_FACTS } from './reporting';
import type { SigningBodies } from './signing';
import { SIGNING_FACTS } from './signing';
import { RUN_STARTED } from './start';

/** What may come after a run has been started. */
interface LaterBodies
  extends
    PortionBodies,
    ReadingBodies,
    EndPointBodies,
    ElectrodeBodies,
    NoteBodies,
    CorrectionBodies,
    CourseBodies,
    ReportingBodies,
    SigningBodies {}

export interface RunFactBodies extends LaterBodies {
  'run.started': RunSetUp;
}
export type RunFact = FactOf<RunFactBodies>;

const LATER_FACTS = {
  ...PORTION_FACTS,
  ...READING_FACTS,
  ...END_POINT_FACTS,
  ...ELECTRODE_FACTS,
  ...NOTE_FACTS,
  ...CORRECTION_FACTS,
  ...COURSE_FACTS,
  ...REPORTING_FACTS,
  ...SIGNING_FACTS,
} satisfies Record<keyof LaterBodies, unknown>;

/** Their definitions by kind; none for the start. */
const BY_KIND = new Map<string, RunFactDefinition<string, unknown>>(Object.entries(LATER_FACTS));

/** The definition of a fact that comes after the start; undefined for any other kind. */
export function laterFact(kind: string): RunFactDefinition<string, unknown> | undefined {
  return BY_KIND.get(kind);
}

/** A run: begun, titrated, corrected, paused, abandoned, certified or reported. */
export const RUN_RECORD = {
  kind: 'run',
  first: 'run.started',
  closed: ({ status }: { readonly status: string }) =>
    status === 'open' ? [] : [impossible('run-closed', 'run', { status })],
  facts: { 'run.started': RUN_STARTED, ...LATER_FACTS },
} as const;
