import { graphIndex } from '../core/snapshot/graph-index.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { isNode, nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { bindingsOf, ScriptFile, specifierOf } from './script-file.ts';

/** The function by which an app's own component system defers a component: it is given a function that imports it. */
export interface Wrapper {
  name: string;
  from: string;
  /** What has to stand around a deferred component until it is there. */
  boundary: 'Suspense' | null;
}

const REACT: Wrapper = { name: 'lazy', from: 'react', boundary: 'Suspense' };

/** `() => import(…)`, or `async () => ({ default: (await import(…)).X })`, as a function begins. */
export const LOADS = /^(?:\(\)\s*=>\s*|async\s*\(\)\s*=>\s*\(\{\s*default:\s*\(\s*await\s+)import\(/;

const LOOKS_DEFERRED = /=\s*[\w.]+\(\s*(?:async\s*)?\(\)\s*=>\s*(?:\(\{\s*default:\s*\(\s*await\s+)?import\(/;

/**
 * The wrapper that an app already uses for its deferred components, where it uses one; the most frequent of several.
 * Where nothing is deferred yet, that of React for an app whose markup is compiled for it.
 */
export function wrapperOf(snapshot: Snapshot, sources: Readonly<Record<string, string>>): Wrapper | null {
  const seen = new Map<string, { wrapper: Wrapper; times: number }>();
  for (const [path, text] of Object.entries(sources)) {
    if (!/\.[jt]sx?$/.test(path) || !LOOKS_DEFERRED.test(text)) continue;
    const file = new ScriptFile(path, text);
    for (const { wrapper } of deferredComponents(file)) {
      const key = `${wrapper.from} ${wrapper.name}`;
      seen.set(key, { wrapper, times: (seen.get(key)?.times ?? 0) + 1 });
    }
  }
  const [most] = [...seen.values()].sort((a, b) => b.times - a.times);
  if (most) return most.wrapper;
  return usesReact(snapshot) ? REACT : null;
}

/** A top-level `const Name = wrapper(() => import('…'))`. */
export interface DeferredComponent {
  local: string;
  statement: SyntaxNode;
  call: SyntaxNode;
  /** Local name of the wrapper. */
  by: string;
  wrapper: Wrapper;
}

export function deferredComponents(file: ScriptFile): DeferredComponent[] {
  const found: DeferredComponent[] = [];
  for (const statement of file.body) {
    const declared = statement.type === 'ExportNamedDeclaration' ? statement.declaration : statement;
    if (!isNode(declared) || declared.type !== 'VariableDeclaration') continue;
    const [declarator, ...more] = declared.declarations as SyntaxNode[];
    const call = declarator.init;
    if (more.length > 0 || !isNode(call) || call.type !== 'CallExpression') continue;
    const [given] = call.arguments as SyntaxNode[];
    if (given?.type !== 'ArrowFunctionExpression' || !LOADS.test(file.of(given))) continue;
    const wrapper = calledWrapper(file, call.callee as SyntaxNode);
    const local = nameOf(declarator.id);
    if (wrapper && local) found.push({ local, statement, call, ...wrapper });
  }
  return found;
}

function calledWrapper(file: ScriptFile, callee: SyntaxNode): { by: string; wrapper: Wrapper } | null {
  const owner = callee.type === 'MemberExpression' ? nameOf(callee.object) : nameOf(callee);
  for (const statement of file.imports()) {
    const bound = bindingsOf(statement).find((b) => b.local === owner);
    const from = specifierOf(statement);
    if (!bound || from === null || from.startsWith('.')) continue;
    const name = callee.type === 'MemberExpression' ? nameOf(callee.property) : bound.imported;
    if (!name || name === '*' || name === 'default') return null;
    return { by: owner!, wrapper: { name, from, boundary: from === 'react' ? 'Suspense' : null } };
  }
  return null;
}

/** The compiler puts an import of the markup's runtime into every module with markup. */
function usesReact(snapshot: Snapshot): boolean {
  const index = graphIndex(snapshot);
  const runtime = snapshot.imports.some((i) => i.specifier === 'react/jsx-runtime' || i.specifier === 'react');
  return (
    runtime ||
    snapshot.unresolved.some((u) => u.specifier === 'react/jsx-runtime') ||
    [...index.moduleAt.keys()].some((p) => p.includes('node_modules/react/'))
  );
}
