import type { Colour, Procedure } from '../../chemistry';
import type { TitratedToEnds } from '../figures';
import { awaitedFirstEnd } from '../figures';
import type { Flask } from '../run';

/**
 * The colour of a flask at its last entered reading, never ahead of the eye. Until the end is read it has not turned, however much is
 * expected to have run in: only whoever looks at it knows, as the molarity that would say so is what is sought. A reading that is
 * written before a drop says that the last colour before the end is there. At the end it is as it was judged to be; a rough one is
 * overshot by design.
 */
export function flaskColour(
  flask: Flask,
  method: Pick<Procedure, 'colours' | 'course'> & TitratedToEnds,
): Colour {
  const { final, provisional, grade, isRough } = flask;
  const { colours, course = [colours.before] } = method;
  const first = awaitedFirstEnd(method, flask);
  if (first) return first.colours.before;
  if (!final) return course.at(provisional.length > 0 ? -1 : 0) ?? colours.before;
  return isRough || grade?.grade === 'far-over' ? colours.overshot : colours.endPoint;
}
