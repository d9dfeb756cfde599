import type { Colour, Procedure, TwoEnds } from '../../chemistry';
import type { Flask } from '../run';
import { isBlank } from '../run';

/**
 * The colour of a flask at its last entered reading, never ahead of the eye. Until the end is read it has not turned, however much is
 * expected to have run in: only whoever looks at it knows, as the molarity that would say so is what is sought. A reading that is
 * written before a drop says that the last colour before the end is there. At the end it is as it was judged to be; a rough one is
 * overshot by design.
 */
export function flaskColour(
  { firstEnd, final, provisional, grade, isRough, portion }: Flask,
  {
    colours,
    course = [colours.before],
    twoEnds,
  }: Pick<Procedure, 'colours' | 'course'> & { readonly twoEnds?: TwoEnds },
): Colour {
  const isBeforeFirst = twoEnds !== undefined && !isBlank({ portion }) && !firstEnd && !final;
  if (isBeforeFirst) return twoEnds.first.colours.before;
  if (!final) return course.at(provisional.length > 0 ? -1 : 0) ?? colours.before;
  return isRough || grade?.grade === 'far-over' ? colours.overshot : colours.endPoint;
}
