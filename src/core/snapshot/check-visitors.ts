import { amount, each, object, text } from '../text/fields.ts';
import type { RouteNotes, Spread, VisitorNotes } from './visitor-types.ts';

/** Checks what is said of visitors when it comes from outside; throws InputError naming the field. */
export function checkVisitorNotes(value: unknown, at: string): VisitorNotes {
  const item = object(value, at);
  const share = (name: 'touch' | 'dataSaver' | 'returning' | 'deployed') =>
    item[name] === undefined ? {} : { [name]: amount(item[name], `${at}.${name}`, 1) };
  return {
    ...(item.segments === undefined ? {} : { segments: each(item.segments, `${at}.segments`, checkSegment) }),
    ...share('touch'),
    ...share('dataSaver'),
    ...share('returning'),
    ...share('deployed'),
    ...(item.hesitation === undefined ? {} : { hesitation: checkSpread(item.hesitation, `${at}.hesitation`) }),
    ...(item.routes === undefined ? {} : { routes: each(item.routes, `${at}.routes`, checkRoute) }),
  };
}

function checkSegment(value: unknown, at: string): { name: string; share: number } {
  const item = object(value, at);
  return { name: text(item.name, `${at}.name`), share: amount(item.share, `${at}.share`, 1) };
}

const LONGEST_MS = 86_400_000;

/** Checks how a time varies (median in ms, spread of its logarithm), as it came from outside; throws InputError naming the field. */
export function checkSpread(value: unknown, at: string): Spread {
  const item = object(value, at);
  return {
    medianMs: amount(item.medianMs, `${at}.medianMs`, LONGEST_MS),
    spread: item.spread === undefined ? 0 : amount(item.spread, `${at}.spread`, 5),
  };
}

function checkRoute(value: unknown, at: string): RouteNotes {
  const item = object(value, at);
  return {
    pattern: text(item.pattern, `${at}.pattern`),
    ...(item.dwell === undefined ? {} : { dwell: checkSpread(item.dwell, `${at}.dwell`) }),
    ...(item.moves === undefined
      ? {}
      : {
          moves: each(item.moves, `${at}.moves`, (m, where) => {
            const move = object(m, where);
            return { to: text(move.to, `${where}.to`), share: amount(move.share, `${where}.share`, 1) };
          }),
        }),
    ...(item.acts === undefined
      ? {}
      : {
          acts: each(item.acts, `${at}.acts`, (a, where) => {
            const act = object(a, where);
            return {
              part: text(act.part, `${where}.part`),
              share: amount(act.share, `${where}.share`, 1),
              ...(act.hesitation === undefined
                ? {}
                : { hesitation: checkSpread(act.hesitation, `${where}.hesitation`) }),
            };
          }),
        }),
  };
}
