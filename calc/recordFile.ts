import { toJsonSchema } from '@valibot/to-json-schema';
import * as v from 'valibot';
import { TASKS } from './record';

/** JSON Schema (draft 2020-12) of the open record format, made from the schemas that records are read with. */
export function recordJsonSchema(): object {
  const [first, ...rest] = TASKS.map((task) => task.schema);
  if (!first) throw new RangeError('there are no tasks');
  const schema = toJsonSchema(v.variant('task', [first, ...rest]), {
    typeMode: 'input',
    errorMode: 'ignore',
    target: 'draft-2020-12',
  });
  return { title: 'Vine Measure record', ...schema };
}
