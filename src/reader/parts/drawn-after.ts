import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { atFirst } from './at-first.ts';
import { type CallSites, nameOfFunction } from './call-sites.ts';
import { type AnswerFlows, type LineOf, type Origin, plain } from './from-answers.ts';
import { UNKNOWN } from './literals.ts';
import { eachOf } from './repeats.ts';
import { isMeant, plainly } from './sense.ts';
import { testsOf } from './tests-around.ts';
import type { Values } from './values.ts';

/** Words for being under way. */
const UNDER_WAY =
  /^(is|are)?_?(loading|pending|fetching|validating|initializing|initialLoading|isLoading)$|(Loading|Pending|Fetching)$/;
const UNDER_WAY_VALUE = /^(loading|pending|idle|initial)$/;
/** Words for what went wrong: nothing waits for that. */
const FAILED = /error|failed|failure/i;

interface Around {
  values: Values;
  flows: AnswerFlows;
  callSites: CallSites;
  line: LineOf;
  /** What the module's own functions are drawn after, as far as it is known: many may call one another. */
  calledAfter: Map<string, Origin>;
}

/** What the last node of a path is drawn after: all that has to be there for it to be reached, as far as tests and lists around it tell. */
export function drawnAfter(path: readonly SyntaxNode[], around: Around): Origin {
  const lines = new Set<number>();
  const names = new Set<string>();
  const imported: NonNullable<Origin['imported']> = [];
  let selected = false;
  const take = (origin: Origin) => {
    selected ||= origin.selected === true;
    for (const l of origin.lines) lines.add(l);
    for (const n of origin.names) names.add(n);
    imported.push(...(origin.imported ?? []));
  };
  for (let i = path.length - 1; i >= 0; i--) {
    const [node, child] = [path[i], path[i + 1]];
    for (const test of testsOf(node, child))
      if (waits(plainly(test), around.values)) take(around.flows.of(test.test, around.line));
    const list = child && listAround(node, child);
    if (list) take(around.flows.of(list, around.line));
    if (isNode(node.awaited)) take(around.flows.of(node.awaited, around.line));
    if (!isFunction(node)) continue;
    take(around.flows.heldBy(node));
    const name = nameOfFunction(node, path[i - 1]);
    if (name !== null) take(inAll(name, around));
  }
  return {
    ...{ lines: [...lines], names: [...names] },
    ...(selected ? { selected: true } : {}),
    ...(imported.length > 0 ? { imported } : {}),
  };
}

/** What all places that call or draw a function of the module are drawn after. */
function inAll(name: string, around: Around): Origin {
  const { callSites, calledAfter } = around;
  const known = calledAfter.get(name);
  if (known) return known;
  // Whoever calls itself is asked about only once.
  calledAfter.set(name, { lines: [], names: [] });
  const [first, ...more] = (callSites.get(name) ?? []).map((site) => drawnAfter(site, around));
  if (!first) return { lines: [], names: [] };
  const found: Origin = {
    lines: first.lines.filter((l) => more.every((o) => o.lines.includes(l))),
    names: first.names.filter((n) => more.every((o) => o.names.includes(n))),
  };
  const imported = first.imported?.filter((i) => more.every((o) => o.imported?.includes(i))) ?? [];
  if (imported.length > 0) found.imported = imported;
  if (first.selected && more.every((o) => o.selected)) found.selected = true;
  calledAfter.set(name, found);
  return found;
}

/** Whether what stands under a test isn't drawn at first and waits for what the test asks about. */
function waits({ test, holds }: { test: SyntaxNode; holds: boolean }, values: Values): boolean {
  const first = atFirst(test, values);
  if (first !== UNKNOWN) return Boolean(first) !== holds;
  const said: string[] = [];
  walk(test, (n) => {
    if (n.type === 'Identifier') said.push(plain(n.name as string));
    if (n.type === 'Literal' && typeof n.value === 'string') said.push(`=${n.value}`);
  });
  if (said.some((w) => FAILED.test(w))) return false;
  const underWay = said.some((w) => UNDER_WAY.test(w) || (w.startsWith('=') && UNDER_WAY_VALUE.test(w.slice(1))));
  const name = said.find((w) => !w.startsWith('='));
  if (name === undefined) return false;
  const meant = isMeant(test, name, values);
  return holds === (underWay ? !meant : meant);
}

/** The list that a call goes through, where it draws one of its items in the child. */
function listAround(call: SyntaxNode, child: SyntaxNode): SyntaxNode | null {
  const each = eachOf(call, child);
  if (each) return each;
  if (call.type !== 'CallExpression' || !isFunction(child)) return null;
  const callee = call.callee as SyntaxNode;
  if (callee.type !== 'MemberExpression' || !/^(map|flatMap)$/.test(nameOf(callee.property) ?? '')) return null;
  return (call.arguments as unknown[])[0] === child ? (callee.object as SyntaxNode) : null;
}
