import { toJsonSchema } from '@valibot/to-json-schema';
import type * as v from 'valibot';
import type { ProblemCode, Route } from '#contract';
import { exactly, PROBLEM_STATUS, ROUTES } from '#contract';

/** What any request can meet. */
const EVERYWHERE: readonly ProblemCode[] = [
  'invalid-request',
  'not-found',
  'too-many-requests',
  'unavailable',
  'disk-full',
];
const WITH_BODY: readonly ProblemCode[] = ['too-large', 'unsupported-media-type', 'wrong-origin'];

const PROBLEM_SCHEMA = {
  type: 'object',
  description: 'RFC 9457 problem details.',
  required: ['type', 'code', 'status', 'title', 'fields', 'requestId'],
  properties: {
    type: { type: 'string', examples: ['urn:vine-measure:problem:invalid-request'] },
    code: { type: 'string', enum: Object.keys(PROBLEM_STATUS) },
    status: { type: 'integer' },
    title: { type: 'string', description: 'One sentence that a user can act on.' },
    fields: {
      type: 'array',
      items: {
        type: 'object',
        required: ['field', 'message'],
        properties: { field: { type: 'string' }, message: { type: 'string' } },
      },
    },
    requestId: { type: 'string', format: 'uuid' },
  },
} as const;

/** The interface of the server in OpenAPI 3.1, made from the schemas that it validates with. */
export function openApiDocument(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const route of ROUTES) {
    paths[route.path] = { ...paths[route.path], [route.method]: operationOf(route) };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Vine Measure',
      version: '0.1.0',
      description:
        'The same requests that the pages make. Sign in first: the session is a cookie, and every change carries ' +
        'the token that GET /session gives in the header x-csrf-token.',
    },
    servers: [{ url: '/api' }],
    paths,
    components: {
      schemas: { Problem: PROBLEM_SCHEMA },
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'vine.session' },
        token: { type: 'apiKey', in: 'header', name: 'x-csrf-token' },
      },
    },
  };
}

function operationOf(route: Route): object {
  const needed = route.method === 'get' ? { session: [] } : { session: [], token: [] };
  return {
    summary: route.summary,
    security: route.needsSession ? [needed] : [],
    parameters: Object.entries(route.parameters).map(([name, { in: place, meaning }]) => ({
      name,
      in: place,
      required: place === 'path',
      description: meaning,
      schema: { type: 'string' },
    })),
    ...(route.body && {
      requestBody: {
        required: true,
        content: {
          'application/json': {
            // What JSON Schema cannot say (trimming, checks across fields) the server checks all the same.
            schema: jsonSchemaOf(route.body),
          },
        },
      },
    }),
    responses: {
      ...Object.fromEntries(
        Object.entries(route.answers).map(([status, { meaning, type, schema }]) => [
          status,
          {
            description: meaning,
            ...(type && {
              content: { [type]: schema ? { schema: jsonSchemaOf(exactly(schema)) } : {} },
            }),
          },
        ]),
      ),
      ...problemResponses(route),
    },
  };
}

/** In the dialect of OpenAPI 3.1: what goes over the wire, without the rules for entering it. */
function jsonSchemaOf(schema: v.GenericSchema): object {
  const target = 'draft-2020-12';
  return toJsonSchema(schema, { typeMode: 'input', errorMode: 'ignore', target });
}

function problemResponses(route: Route): Record<string, object> {
  const codes: readonly ProblemCode[] = [
    ...route.problems,
    ...EVERYWHERE,
    ...(route.needsSession ? (['not-signed-in'] as const) : []),
    ...(route.method === 'get' ? [] : WITH_BODY),
  ];
  const byStatus = new Map<number, ProblemCode[]>();
  for (const code of new Set(codes)) {
    byStatus.set(PROBLEM_STATUS[code], [...(byStatus.get(PROBLEM_STATUS[code]) ?? []), code]);
  }
  return Object.fromEntries(
    [...byStatus].map(([status, of]) => [
      status,
      {
        description: of.join(', '),
        content: {
          'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } },
        },
      },
    ]),
  );
}
