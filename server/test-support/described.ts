import type { ValidateFunction } from 'ajv/dist/2020';
import { Ajv2020 } from 'ajv/dist/2020';
import type request from 'supertest';
import type { Route } from '#contract';
import { ROUTES } from '#contract';
import { openApiDocument } from '../http/openApi';

/** As much of the document as says what comes back. */
type Paths = Record<
  string,
  Record<string, { responses: Record<string, { content?: Record<string, { schema?: object }> }> }>
>;

const ASKED = ROUTES.map((route) => ({
  route,
  address: new RegExp(`^/api${route.path.replaceAll(/\{\w+\}/g, '[^/?]+')}(?:\\?|$)`),
}));

const DOCUMENT = 'urn:vine-measure:interface';
const document = openApiDocument() as { paths: Paths };
const validator = new Ajv2020({ strict: false, validateFormats: false, allErrors: true });
validator.addSchema({ $id: DOCUMENT, ...document });

const made = new Map<string, ValidateFunction | null>();

/** The request with a check that its answer is what the published document says, to the last entry. */
export function asDescribed(
  asked: request.Test,
  method: Route['method'],
  path: string,
): request.Test {
  const found = ASKED.find(({ route, address }) => route.method === method && address.test(path));
  return found ? asked.expect((answer) => checkAnswer(found.route, answer)) : asked;
}

function checkAnswer({ method, path }: Route, answer: request.Response): Error | undefined {
  const validate = validatorOf(method, path, String(answer.status), answer.type);
  if (!validate || validate(answer.body)) return undefined;
  return new Error(
    `${method} ${path} does not answer as described: ${validator.errorsText(validate.errors)}`,
  );
}

/** What the document says of such an answer, if it gives it a shape. */
function validatorOf(
  ...[method, path, status, type]: readonly [string, string, string, string]
): ValidateFunction | null {
  const place = ['paths', path, method, 'responses', status, 'content', type, 'schema'];
  const pointer = place.map((step) => step.replaceAll('~', '~0').replaceAll('/', '~1')).join('/');
  const known = made.get(pointer);
  if (known !== undefined) return known;
  const isShaped = document.paths[path]?.[method]?.responses[status]?.content?.[type]?.schema;
  const validate = isShaped
    ? validator.compile({ $ref: `${DOCUMENT}#/${encodeURI(pointer)}` })
    : null;
  made.set(pointer, validate);
  return validate;
}
