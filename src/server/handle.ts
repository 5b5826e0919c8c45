import pino from 'pino';
import { InputError } from '../core/errors.ts';
import { isDamage } from '../store/soundness.ts';
import { StoreTrouble } from '../store/trouble.ts';
import { closeStore } from './context.ts';
import { guard } from './guard.ts';
import { Problem } from './problem.ts';
import { problemResponse } from './problems.ts';
import { securityHeaders } from './security-headers.ts';

/** Answers to calls are data: nothing in them may run. */
const DATA_HEADERS = securityHeaders(null);

const log = pino({ name: 'yokeline', level: process.env.NODE_ENV === 'test' ? 'silent' : 'info' });

/** Runs a route handler's work: guards it, and turns whatever goes wrong into a problem that says what to do. */
export async function handle(request: Request, work: () => Promise<Response> | Response): Promise<Response> {
  const answer = await answerOf(request, work);
  for (const [name, value] of Object.entries(DATA_HEADERS)) answer.headers.set(name, value);
  return answer;
}

async function answerOf(request: Request, work: () => Promise<Response> | Response): Promise<Response> {
  try {
    guard(request);
    return await work();
  } catch (error) {
    // What is damaged is checked whole, and refused, on the next call.
    if (isDamage(error)) closeStore();
    if (!(error instanceof Problem || error instanceof InputError || error instanceof StoreTrouble))
      log.error(error, 'request failed');
    return problemResponse(error);
  }
}
