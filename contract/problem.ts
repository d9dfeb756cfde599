/** Every way in which a request can fail, with its HTTP status. */
export const PROBLEM_STATUS = {
  'invalid-request': 400,
  'not-signed-in': 401,
  'wrong-credentials': 401,
  'wrong-code': 403,
  'not-allowed': 403,
  'wrong-author': 403,
  'wrong-origin': 403,
  'not-found': 404,
  'stale-version': 409,
  'fact-id-reused': 409,
  'already-exists': 409,
  'other-version': 409,
  'too-large': 413,
  'unsupported-media-type': 415,
  'too-many-requests': 429,
  'impossible-entry': 422,
  'reason-needed': 422,
  'unknown-reference': 422,
  internal: 500,
  unavailable: 503,
  'disk-full': 507,
} as const;

export type ProblemCode = keyof typeof PROBLEM_STATUS;

/** What is wrong with one field of the request. */
export interface FieldProblem {
  /** Name of the field, a dotted path: `body.readingMl`. */
  readonly field: string;
  readonly message: string;
}

/** RFC 9457 `application/problem+json`. */
export interface Problem {
  readonly type: `urn:vine-measure:problem:${ProblemCode}`;
  readonly code: ProblemCode;
  readonly status: number;
  /** One sentence that a user can act on. */
  readonly title: string;
  readonly fields: readonly FieldProblem[];
  readonly requestId: string;
}
