import pino from 'pino';
import { InputError } from '../core/errors.ts';
import { guard } from './guard.ts';
import { Problem, problemResponse } from './problems.ts';

const log = pino({ name: 'yokeline', level: process.env.NODE_ENV === 'test' ? 'silent' : 'info' });

/** Runs a route handler's work: guards it, and turns whatever goes wrong into a problem that says what to do. */
export async function handle(request: Request, work: () => Promise<Response> | Response): Promise<Response> {
  try {
    guard(request);
    return await work();
  } catch (error) {
    if (!(error instanceof Problem) && !(error instanceof InputError)) log.error(error, 'request failed');
    return problemResponse(error);
  }
}
