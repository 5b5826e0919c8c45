import { InputError } from '../errors.ts';
import type { Visit, VisitStep } from './types.ts';

/**
 * A visit on one line, for addresses and the command line: the landing, then steps, with ` > ` between them. Each is
 * `act PART`, `scroll PART`, `move ROUTE`, `open ROUTE` (as a new document), `rest PART`, `rest ROUTE`,
 * `resize WIDTHxHEIGHT`, `deploy`, `return ROUTE` or `return ROUTE after a deploy`; then ` @DWELL+LEAD` in ms, and in
 * `{…}` the conditional parts that hold. Text of a name is percent-encoded where it could be mistaken.
 */
export function writeVisit({ landing, holds, steps }: Visit): string {
  return [`${code(landing)}${holding(holds)}`, ...steps.map(writeStep)].join(' > ');
}

function writeStep(step: VisitStep): string {
  const pause = ` @${Math.round(step.dwellMs)}${'leadMs' in step && step.leadMs > 0 ? `+${Math.round(step.leadMs)}` : ''}`;
  switch (step.does) {
    case 'act':
    case 'scroll':
      return `${step.does} ${code(step.part)}${pause}`;
    case 'move':
      return `${step.by === 'inside' ? 'move' : 'open'} ${code(step.to)}${pause}${holding(step.holds)}`;
    case 'approach':
      return `rest ${code('part' in step ? step.part : step.to)}${pause}`;
    case 'resize':
      return `resize ${step.width}x${step.height}${pause}`;
    case 'deploy':
      return `deploy${pause}`;
    case 'return':
      return `return ${code(step.to)}${step.deployed ? ' after a deploy' : ''}${pause}${holding(step.holds)}`;
  }
}

/** Away for so long when the notation doesn't say: a day. */
export const AWAY_MS = 86_400_000;

/** Reads the notation; throws InputError that names the step. */
export function readVisit(line: string, name = ''): Visit {
  const [first = '', ...rest] = line.split(' > ');
  const landing = held(first.trim());
  if (landing.text === '')
    throw new InputError('Empty visit', 'Begin with the route of the landing, for instance: /.', 'visit');
  return {
    name,
    landing: decode(landing.text),
    holds: landing.holds,
    steps: rest.map((r, at) => readStep(r.trim(), `steps[${at}]`)),
  };
}

function readStep(text: string, at: string): VisitStep {
  const { text: said, holds } = held(text);
  const match = /^(\w+)(?: ([^\s@]\S*?))?( after a deploy)?(?: @(\d+)(?:\+(\d+))?)?$/.exec(said);
  if (!match) throw unreadable(text, at);
  const [, verb, given, deployed] = match;
  const object = decode(given ?? '');
  const dwellMs = Number(match[4] ?? 0);
  const leadMs = Number(match[5] ?? 0);
  if (verb === 'deploy') return { does: 'deploy', dwellMs };
  if (object === '') throw unreadable(text, at);
  switch (verb) {
    case 'act':
    case 'scroll':
      return { does: verb, part: object, dwellMs, leadMs };
    case 'move':
    case 'open':
      return { does: 'move', to: object, by: verb === 'move' ? 'inside' : 'document', dwellMs, leadMs, holds };
    case 'rest':
      return object.startsWith('/')
        ? { does: 'approach', to: object, dwellMs, leadMs }
        : { does: 'approach', part: object, dwellMs, leadMs };
    case 'resize': {
      const size = /^(\d{1,5})x(\d{1,5})$/.exec(object);
      if (!size) throw unreadable(text, at);
      return { does: 'resize', width: Number(size[1]), height: Number(size[2]), dwellMs };
    }
    case 'return':
      return { does: 'return', to: object, awayMs: AWAY_MS, deployed: deployed !== undefined, dwellMs, holds };
    default:
      throw unreadable(text, at);
  }
}

function unreadable(text: string, at: string): InputError {
  return new InputError(
    'Unreadable step',
    `“${text}” is no step. Write for instance: act fares @4000+300, move /book @2000, scroll tide, return /.`,
    at,
  );
}

function held(text: string): { text: string; holds: string[] } {
  // Braces of a name are encoded: the only ones that stand in the text are those of what holds.
  const opens = text.endsWith('}') ? text.indexOf('{') : -1;
  if (opens === -1) return { text, holds: [] };
  const inside = text.slice(opens + 1, -1);
  return { text: text.slice(0, opens).trimEnd(), holds: inside.split(',').filter(Boolean).map(decode) };
}

function holding(parts: string[]): string {
  return parts.length === 0 ? '' : ` {${parts.map(code).join(',')}}`;
}

function code(name: string): string {
  return name.replace(/[%\s>@{},+]/g, (c) => encodeURIComponent(c));
}

function decode(name: string): string {
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}
