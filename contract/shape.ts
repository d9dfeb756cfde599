import * as v from 'valibot';

/** How exactly a shape is: as the server answers today, or as a page that was opened yesterday may read it. */
type Strictness = 'exact' | 'tolerant';

/** The parts of Valibot's schemas that a shape is made of. */
type Part =
  | { readonly type: 'strict_object' | 'loose_object'; readonly entries: Parts }
  | { readonly type: 'array'; readonly item: v.GenericSchema }
  | { readonly type: 'strict_tuple' | 'tuple'; readonly items: [v.GenericSchema] }
  | { readonly type: 'nullable' | 'exact_optional'; readonly wrapped: v.GenericSchema }
  | { readonly type: 'optional'; readonly wrapped: v.GenericSchema; readonly default: unknown }
  | { readonly type: 'variant'; readonly key: string; readonly options: readonly Choice[] }
  | { readonly type: 'union'; readonly options: readonly v.GenericSchema[] }
  | {
      readonly type: 'record';
      readonly key: v.GenericSchema<string, string>;
      readonly value: v.GenericSchema;
    }
  | { readonly type: 'picklist'; readonly options: readonly string[] }
  | { readonly type: 'literal' | 'string' | 'number' | 'boolean' | 'unknown' };

type Parts = Readonly<Record<string, v.GenericSchema>>;

/** One of a variant: an object whose key is a literal. */
type Choice = v.LooseObjectSchema<
  Readonly<Record<string, v.LiteralSchema<string, undefined>>>,
  undefined
>;

/**
 * The shape of what a schema lets pass, without what it asks of whoever enters it: what is on record passed the rules of its
 * day. A tolerant shape takes further entries and words that are new: a newer server must not break an open page.
 *
 * @throws RangeError for a kind of schema that no shape is known of
 */
function shapeOf<Out>(schema: v.GenericSchema<unknown, Out>, how: Strictness) {
  const known = SHAPES[how].get(schema) ?? shape(schema, how);
  SHAPES[how].set(schema, known);
  return known as v.GenericSchema<unknown, Out>;
}

/** Shapes that have been made: answers come often. */
const SHAPES = {
  exact: new WeakMap<object, v.GenericSchema>(),
  tolerant: new WeakMap<object, v.GenericSchema>(),
};

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
    case 'exact_optional':
      return v.exactOptional(inner(part.wrapped));
    case 'optional':
      return v.optional(inner(part.wrapped), part.default as never);
    case 'variant': {
      const known = v.variant(part.key, part.options.map(inner) as [Choice]);
      return how === 'exact' ? known : v.union([known, anotherThan(part)]);
    }
    case 'union':
      return v.union(part.options.map(inner));
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

/** A variant that came later: what it is called is none of those that are known. */
function anotherThan({ key, options }: Extract<Part, { type: 'variant' }>): v.GenericSchema {
  const known = options.map(({ entries }) => entries[key]?.literal);
  return v.looseObject({
    [key]: v.pipe(
      v.string(),
      v.check((name) => !known.includes(name), 'This one is known, and made otherwise.'),
    ),
  });
}

/** The exact shape, for the description and the tests. */
export function exactly<Out>(schema: v.GenericSchema<unknown, Out>) {
  return shapeOf(schema, 'exact');
}

/** The tolerant shape, for whoever reads an answer. */
export function tolerantly<Out>(schema: v.GenericSchema<unknown, Out>) {
  return shapeOf(schema, 'tolerant');
}
