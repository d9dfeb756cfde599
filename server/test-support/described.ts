import type request from 'supertest';
import * as v from 'valibot';
import type { Route } from '#contract';
import { exactly, ROUTES } from '#contract';

const ASKED = ROUTES.map((route) => ({
  route,
  address: new RegExp(`^/api${route.path.replaceAll(/\{\w+\}/g, '[^/?]+')}(?:\\?|$)`),
}));

/** The request with a check that its answer is what the description of the interface says, to the last entry. */
export function asDescribed(
  asked: request.Test,
  method: Route['method'],
  path: string,
): request.Test {
  const found = ASKED.find(({ route, address }) => route.method === method && address.test(path));
  return found ? asked.expect((answer) => checkAnswer(found.route, answer)) : asked;
}

function checkAnswer(
  { method, path, answers }: Route,
  answer: request.Response,
): Error | undefined {
  const schema = answers[answer.status]?.schema;
  if (!schema || answer.type !== 'application/json') return undefined;
  const { issues } = v.safeParse(exactly(schema), answer.body);
  if (!issues) return undefined;
  const told = issues.map((issue) => `${v.getDotPath(issue) ?? 'it all'}: ${issue.message}`);
  return new Error(`${method} ${path} does not answer as described: ${told.join('; ')}`);
}
