/**
 * Every kind of answer to what can't be done, by its code, with its HTTP status. Codes stay as they are for scripts (the words
 * beside them may get better): `type` of the answer is `urn:yokeline:problem:CODE` (RFC 9457, section 3.1.1).
 */
export const PROBLEM_STATUS = {
  'no-archive': 400,
  'broken-json': 400,
  'key-needed': 401,
  'not-from-here': 403,
  'no-such-project': 404,
  'no-such-plan': 404,
  'no-such-reading': 404,
  'no-such-rehearsal': 404,
  'no-such-schema': 404,
  'changed-elsewhere': 409,
  'nothing-to-rescue': 409,
  'not-allowed-to-run': 409,
  'rehearsal-runs': 409,
  'archive-too-large': 413,
  'body-too-large': 413,
  'unreadable-input': 422,
  'unexpected-content': 422,
  'phrase-too-short': 422,
  'not-a-whole-path': 422,
  'nothing-to-read-again': 422,
  'based-on-nothing': 422,
  'name-taken': 422,
  'file-not-written': 422,
  'too-often': 429,
  'too-many-readings': 429,
  'too-many-bodies': 429,
  'server-fault': 500,
  'key-too-short': 503,
  'database-not-writable': 503,
  'database-busy': 503,
  'database-damaged': 503,
  'database-foreign': 503,
  'database-newer': 503,
  'database-gone': 503,
  'disk-full': 507,
} as const satisfies Record<string, number>;

export type ProblemCode = keyof typeof PROBLEM_STATUS;
