import * as v from 'valibot';

/** How exactly a shape is: as the server answers today, or as a page that was opened yesterday may read it. */
type Strictness = 'exact' | 'tolerant';

/** The parts of Valibot's schemas that a shape is made of. */
type Part =
  | { readonly type: 'strict_object' | 'loose_object'; readonly entries: Parts }
  | { readonly type: 'array'; readonly item: v.GenericSchema }
  | { readonly type: 'strict_tuple' | 'tuple'; readonly items: [v.GenericSchema] }
  | { readonly type: 'nullable'; readonly wrapped: v.GenericSchema }
  | { readonly type: 'optional'; readonly wrapped: v.GenericSchema; readonly default: unknown }
  | { readonly type: 'variant' | 'union'; readonly options: readonly v.GenericSchema[] }
  | {
      readonly type: 'record';
      readonly key: v.GenericSchema<string, string>;
      readonly value: v.GenericSchema;
    }
  | { readonly type: 'picklist'; readonly options: readonly string[] }
  | { readonly type: 'literal' | 'string' | 'number' | 'boolean' | 'unknown' };

type Parts = Readonly<Record<string, v.GenericSchema>>;

/**
 * The shape of what a schema lets pass, without what it asks of whoever enters it: what is on record passed the rules of its
 * day. A tolerant shape takes further entries and words that are new: a newer server must not break an open page.
 *
 * @throws RangeError for a kind of schema that no shape is known of
 */
function shapeOf<Out>(schema: v.GenericSchema<unknown, Out>, how: Strictness) {
  return shape(schema, how) as v.GenericSchema<unknown, Out>;
}

function shape(schema: v.GenericSchema, how: Strictness): v.GenericSchema {
  if ('pipe' in schema) return shape((schema.pipe as [v.GenericSchema])[0], how);
  const inner = (one: v.GenericSchema): v.GenericSchema => shape(one, how);
  const part = schema as unknown as Part;
  switch (part.type) {
    case 'strict_object':
    case 'loose_object': {
      const entries = Object.fromEntries(
        Object.entries(part.entries).map(([key, value]) => [key, inner(value)]),
      );
      return how === 'exact' && part.type === 'strict_object'
        ? v.strictObject(entries)
        : v.looseObject(entries);
    }
    case 'array':
      return v.array(inner(part.item));
    case 'strict_tuple':
    case 'tuple':
      return v.strictTuple(part.items.map(inner) as [v.GenericSchema]);
    case 'nullable':
      return v.nullable(inner(part.wrapped));
    case 'optional':
      return v.optional(inner(part.wrapped), part.default as never);
    case 'variant':
    case 'union': {
      const options = part.options.map(inner);
      const others = how === 'tolerant' && part.type === 'variant' ? [v.looseObject({})] : [];
      return v.union([...options, ...others]);
    }
    case 'record':
      return v.record(part.key, inner(part.value));
    case 'picklist':
      return how === 'exact' ? v.picklist(part.options) : v.string();
    case 'literal':
    case 'string':
    case 'number':
    case 'boolean':
    case 'unknown':
      return schema;
    default:
      throw new RangeError(`no shape is known of ${schema.type}`);
  }
}

/** The exact shape, for the description and the tests. */
export function exactly<Out>(schema: v.GenericSchema<unknown, Out>) {
  return shapeOf(schema, 'exact');
}

/** The tolerant shape, for whoever reads an answer. */
export function tolerantly<Out>(schema: v.GenericSchema<unknown, Out>) {
  return shapeOf(schema, 'tolerant');
}
