import { followNames, type Homes, type PrunableModule } from './graph/prune.ts';
import type { ReadModule } from './graph/read-module.ts';

type Link = ReadModule['imports'][number];

/**
 * What modules that run on the server send to the browser by their imports. A module that isn’t marked as client code runs on the server where
 * one that runs there imports it, also where the browser gets it as well, by client code elsewhere: then only what it leads to that is marked is
 * sent (React, “use client”: the border lies at the import of a marked module).
 */
export class ServerWays {
  private readonly homes: Homes = new Map();
  private readonly known = new Map<string, readonly string[]>();

  constructor(
    private readonly modules: ReadonlyMap<string, ReadModule>,
    private readonly shipped: ReadonlySet<string>,
  ) {}

  /** The imports of a module that runs on the server: of its own code as they are, else what they send. */
  from({ imports }: ReadModule): Link[] {
    return imports.flatMap((link) => {
      const to = this.modules.get(link.to);
      if (!to) return [];
      if (this.isSent(to) || (!this.shipped.has(to.path) && to.module.package === null)) return [link];
      return followNames(link.found, to.path, (path) => this.prunable(path), this.homes).flatMap((led): Link[] => {
        const home = this.modules.get(led.to);
        if (!home) return [];
        if (this.isSent(home)) return [{ found: { ...link.found, names: led.names }, to: led.to }];
        return this.sentBy(home.path).map((sent) => ({ found: { ...link.found, names: ['*'] }, to: sent }));
      });
    });
  }

  /** Marked code is sent where it is imported; so are styles, and files that are only named. */
  private isSent({ marked, kind }: ReadModule): boolean {
    return marked === 'client' || kind !== 'script';
  }

  private prunable(path: string): PrunableModule | undefined {
    const module = this.modules.get(path);
    return module && { sideEffects: false, reexports: module.reexports };
  }

  /** What a module that runs on the server leads to that is sent, through whatever else runs there. */
  private sentBy(path: string): readonly string[] {
    const known = this.known.get(path);
    if (known) return known;
    const sent = new Set<string>();
    const met = new Set([path]);
    for (const at of met)
      for (const { to } of this.modules.get(at)?.imports ?? []) {
        const module = this.modules.get(to);
        if (!module) continue;
        if (this.isSent(module)) sent.add(to);
        else met.add(to);
      }
    this.known.set(path, [...sent]);
    return [...sent];
  }
}
