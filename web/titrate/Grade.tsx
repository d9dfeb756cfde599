import type { EndPointGrade, Flask, RunState } from '#core/titration/run';
import { flaskOf, flaskUnderBurette, isBlank } from '#core/titration/run';
import { Button, KeyHint } from '../ui/Button';
import { FormError } from '../ui/FormError';
import type { Way } from './useKeys';

const GRADES: readonly {
  readonly grade: EndPointGrade;
  readonly key: string;
  readonly name: string;
}[] = [
  { grade: 'good', key: 'g', name: 'just there' },
  { grade: 'drop-over', key: 'o', name: 'a drop over' },
  { grade: 'far-over', key: 'x', name: 'far over' },
];

/** What a grade is called. */
export function gradeName(grade: EndPointGrade): string {
  return GRADES.find((one) => one.grade === grade)?.name ?? grade;
}

/** The flask whose end point has just been read, while nothing rests on it; null when there is none. */
export function flaskJustEnded(run: RunState): Flask | null {
  if (run.status !== 'open' || flaskUnderBurette(run)) return null;
  const flask = flaskOf(run, run.level?.flask ?? null);
  return flask?.final && !flask.voided && !isBlank(flask) ? flask : null;
}

/** The keys that say how an end point was met, or take it back. */
export function gradeWays(
  flask: Flask,
  onGrade: (grade: EndPointGrade) => void,
  onTakeBack: () => void,
): readonly Way[] {
  return [
    ...(flask.grade
      ? []
      : GRADES.map(({ grade, key, name }) => ({
          key,
          name,
          go: () => {
            onGrade(grade);
          },
        }))),
    { key: 'z', name: 'not reached', go: onTakeBack },
  ];
}

/** How the last end point was met: asked once, right after it was read. */
export function GradeRow({
  flask,
  ways,
  error,
}: {
  readonly flask: Flask;
  readonly ways: readonly Way[];
  /** Why the last answer was not taken. */
  readonly error: string | undefined;
}) {
  const number = String(flask.number);
  return (
    <div
      role="group"
      aria-label={`End point of flask ${number}`}
      className="col-span-full flex flex-wrap items-center gap-2 text-[15px]"
    >
      <span className="text-ink-soft max-xl:w-full">
        {flask.grade
          ? `End point of flask ${number}: ${gradeName(flask.grade.grade)}.`
          : `End point of flask ${number}?`}
      </span>
      {ways.map(({ key, name, go }) => (
        <Button key={key} className="text-[15px] whitespace-nowrap max-md:grow" onClick={go}>
          {name} <KeyHint>{key.toUpperCase()}</KeyHint>
        </Button>
      ))}
      <FormError message={error} />
    </div>
  );
}
