import { graphIndex } from '../snapshot/graph-index.ts';
import { fileOf, type Uncompiled } from './compilation.ts';
import type { LandedRoot } from './landing.ts';
import { callsOnLanding } from './places.ts';

/** What something waits for: a part that is drawn, a file or an answer that has come, a group of files that has run; by its position. */
export interface Waited {
  kind: 'part' | 'file' | 'group';
  at: number;
}

/** What waits for what on a landing, as far as it is decided which part's drawing asks for what: nothing may wait for itself. */
export class Waiting {
  /** What is decided so far: calls by their resource and deferred components, each with the part that asks, and answers that come before. */
  readonly asked = {
    calls: new Map<number, number>(),
    roots: new Map<LandedRoot, number>(),
    answers: new Map<LandedRoot, number[]>(),
  };
  /** Found out once it is asked for: most landings ask for nothing while they draw. */
  private known: Ties | undefined;

  constructor(private readonly c: Uncompiled) {}

  /**
   * Whether one thing comes only once another one has, at any remove: parts by what they need and by what comes before them, files by what runs
   * before them and by what asks for them.
   */
  leadsTo(from: Waited, meant: Waited): boolean {
    const waits: Waited[] = [];
    const seen = new Set<string>();
    const add = (kind: Waited['kind'], at: number) => {
      if (seen.has(`${kind} ${at}`)) return;
      seen.add(`${kind} ${at}`);
      waits.push({ kind, at });
    };
    add(from.kind, from.at);
    for (const { kind, at } of waits) {
      if (kind === meant.kind && at === meant.at) return true;
      if (kind === 'part') this.beforePart(at, add);
      else if (kind === 'file') this.beforeFile(at, add);
      else this.beforeGroup(at, add);
    }
    return false;
  }

  private get ties(): Ties {
    this.known ??= tiesOf(this.c);
    return this.known;
  }

  private beforePart(part: number, add: Add): void {
    const { after, needs } = this.c.parts[part];
    for (const p of after) add('part', p);
    for (const need of needs) add('file', need.resource);
  }

  private beforeFile(file: number, add: Add): void {
    for (const group of this.ties.groupsWith.get(file) ?? []) add('group', group);
    const caller = this.ties.callers.get(file);
    if (caller === undefined) return;
    const part = this.asked.calls.get(file);
    if (part !== undefined) add('part', part);
    add('file', caller);
  }

  private beforeGroup(group: number, add: Add): void {
    const { snapshot, graph, landing, files } = this.c;
    for (const g of files.groups[group].after) add('group', g);
    const landed = this.ties.inGroup.get(group);
    if (!landed) return;
    for (const answer of this.asked.answers.get(landed) ?? []) add('file', answer);
    const by = this.asked.roots.get(landed);
    if (by !== undefined) add('part', by);
    else if (landed.askedBy >= 0) add('file', fileOf(snapshot, graph, landing, files, landed.askedBy));
  }
}

/** What belongs together whoever asks for it. */
interface Ties {
  /** Groups that a file is in. */
  groupsWith: ReadonlyMap<number, readonly number[]>;
  inGroup: ReadonlyMap<number, LandedRoot>;
  /** The file with the code that makes a call, by the call's resource. */
  callers: ReadonlyMap<number, number>;
}

function tiesOf({ snapshot, graph, landing, files }: Uncompiled): Ties {
  const groupsWith = new Map<number, number[]>();
  for (const [group, { resources }] of files.groups.entries())
    for (const r of resources) {
      const groups = groupsWith.get(r);
      if (groups) groups.push(group);
      else groupsWith.set(r, [group]);
    }
  const callers = new Map<number, number>();
  for (const call of callsOnLanding(landing.route)) {
    const module = graphIndex(snapshot).moduleAt.get(call.module);
    if (module !== undefined) callers.set(files.data(call), fileOf(snapshot, graph, landing, files, module));
  }
  return {
    groupsWith,
    inGroup: new Map(landing.roots.map((landed) => [files.groupOf(landed.root), landed])),
    callers,
  };
}

type Add = (kind: Waited['kind'], at: number) => void;
