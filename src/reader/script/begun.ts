import type { Trigger } from '../../core/vocabulary/triggers.ts';
import { widthsIn } from '../parts/media.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { attributeOf, CALL_ONCE_DRAWN, handedTo, ownName } from './handed-off.ts';

/** Attributes whose handlers run when a pointer or the focus comes near. */
const APPROACHES = /^on(Mouse|Pointer)(Enter|Over)$|^onFocus(In)?$/;
/** Events that come to every page by themselves (HTML). */
const BY_ITSELF = new Set(['load', 'DOMContentLoaded', 'pageshow']);

/**
 * When code begins a deferred import by itself, before anybody uses what it brings: `requestIdleCallback(() => import('./map'))`, after a
 * time, after the first paint, on a screen of some width, on the approach to something; also through one function of the module
 * with a name. Null where it doesn't. `above`: what stands around the import, outermost first.
 */
export function begunAt(program: SyntaxNode, above: readonly SyntaxNode[]): Trigger | null {
  const at = above.findLastIndex(isFunction);
  if (at < 0) return null;
  const fn = above[at];
  const handed = handedAt(fn, above, at);
  if (handed) return handed;
  const name = ownName(fn, above, at);
  if (name === null) return null;
  const found: Trigger[] = [];
  walk(program, (node, around) => {
    if (node.type !== 'Identifier' || node.name !== name) return;
    const called = around.at(-1)?.type === 'CallExpression' && around.at(-1)?.callee === node;
    const trigger = called ? calledAt(around) : handedAt(node, around, around.length);
    if (trigger) found.push(trigger);
  });
  return found.find((t) => t.on === 'idle') ?? found[0] ?? null;
}

/** When a function runs that is handed to a timer at its place. */
function handedAt(node: SyntaxNode, above: readonly SyntaxNode[], at: number): Trigger | null {
  if (APPROACHES.test(attributeOf(above, at)?.name ?? '')) return { on: 'approach' };
  const call = above[at - 1];
  const around = above.slice(0, at - 1);
  switch (handedTo(node, above, at)) {
    case 'requestIdleCallback':
      return isReached(around) ? { on: 'idle' } : null;
    case 'setTimeout': {
      const [, delay] = call.arguments as SyntaxNode[];
      const ms = isNode(delay) ? delay.value : 0;
      if (typeof ms !== 'number') return null;
      if (isReached(around)) return { on: 'after', ms };
      const frame = around.findLastIndex(isFunction);
      const drawn = frame > 0 && handedTo(around[frame], around, frame) === 'requestAnimationFrame';
      return drawn && isReached(around.slice(0, frame - 1)) ? { on: 'after first paint' } : null;
    }
    default:
      return null;
  }
}

/** When a function runs that is called at its place: on screens that a media query means. */
function calledAt(around: readonly SyntaxNode[]): Trigger | null {
  const test = around.find((n) => n.type === 'IfStatement')?.test;
  if (!isNode(test) || !isReached(around.slice(0, -1))) return null;
  const asked = test.type === 'MemberExpression' ? (test.object as SyntaxNode) : test;
  if (asked.type !== 'CallExpression' || nameOf(asked.callee) !== 'matchMedia') return null;
  const [query] = asked.arguments as { value?: unknown }[];
  const media = widthsIn(String(query?.value));
  if (media?.kind !== 'media') return null;
  const { kind: _, ...width } = media;
  return { on: 'media', ...width };
}

/** Whether a place is reached without anybody acting: outside of functions, or once something was drawn or is there. */
export function isReached(around: readonly SyntaxNode[]): boolean {
  return around.every((node, at) => !isFunction(node) || comesByItself(around, at) || isDrawing(around, at));
}

function comesByItself(around: readonly SyntaxNode[], at: number): boolean {
  const to = handedTo(around[at], around, at) ?? '';
  if (to !== 'addEventListener') return CALL_ONCE_DRAWN.has(to);
  const [event] = around[at - 1].arguments as unknown[];
  return BY_ITSELF.has(constantText(event) ?? '');
}

/** A component is what is drawn: its effects stand in a function with a capital letter. */
function isDrawing(around: readonly SyntaxNode[], at: number): boolean {
  const name = ownName(around[at], around, at);
  return (
    name !== null && /^[A-Z]/.test(name) && around.some((n, i) => i > at && isFunction(n) && comesByItself(around, i))
  );
}
