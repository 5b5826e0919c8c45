import { shortName } from '../core/plan/decisions.ts';
import type { Part, Route } from '../core/snapshot/types.ts';
import type { ComponentUse } from './component-uses.ts';

/** What a module draws, with the components' specifiers resolved to paths. */
export interface DrawingModule {
  uses: ComponentUse[];
  resolved: ReadonlyMap<string, string>;
  /** Specifiers of its deferred imports. */
  deferred: ReadonlySet<string>;
  package: string | null;
}

/**
 * Proposes the parts of a route from the code: what its layouts and page draw themselves, whatever is deferred, and
 * whatever stands behind an action or a condition, at any depth. What a part behind an action draws belongs to it.
 * Whether something plainly drawn lies below the first screen can't be read off code; it is proposed as on it.
 */
export function proposeParts(
  route: Pick<Route, 'layouts' | 'page'>,
  moduleAt: (path: string) => DrawingModule | undefined,
): Part[] {
  const parts = new Map<string, Part>();
  const seen = new Set<string>();
  const visit = (path: string, direct: boolean) => {
    const module = moduleAt(path);
    if (!module || seen.has(path) || module.package !== null) return;
    seen.add(path);
    for (const use of module.uses) {
      const target = module.resolved.get(use.specifier);
      if (target === undefined || moduleAt(target)?.package !== null) continue;
      if (use.when.kind !== 'drawn' || direct || module.deferred.has(use.specifier)) {
        if (!parts.has(target)) parts.set(target, partOf(target, use, path));
      }
      if (use.when.kind === 'drawn') visit(target, false);
    }
  };
  for (const layout of route.layouts) visit(layout, false);
  visit(route.page, true);
  return withIds([...parts.values()]);
}

function partOf(module: string, { when, line }: ComponentUse, path: string): Part {
  const name = shortName(module).replace(/[-_]/g, ' ');
  const common = { id: name, name, module, interactive: true, needs: [], evidence: { path, line } };
  switch (when.kind) {
    case 'action':
      return { ...common, place: 'action', action: when.action, share: 0.2 };
    case 'condition':
      return { ...common, place: 'conditional', condition: when.condition, share: 0.5 };
    case 'drawn':
      return { ...common, place: 'first screen', share: 1 };
  }
}

/** Ids must differ within a route, names may not. */
function withIds(parts: Part[]): Part[] {
  const seen = new Map<string, number>();
  return parts.map((part) => {
    const n = (seen.get(part.id) ?? 0) + 1;
    seen.set(part.id, n);
    return n === 1 ? part : { ...part, id: `${part.id} ${n}` };
  });
}
