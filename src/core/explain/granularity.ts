import { withDecision, withoutSubject } from '../plan/decisions.ts';
import type { Decision, Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** One way of cutting, from a file per module to one file. */
export interface GrainPoint {
  /** Size floor in minified bytes; 0: chunks as they come out. */
  floor: number;
  /** A file per module, before the floor. */
  perModule: boolean;
  chunks: number;
  requests: number;
  firstContent: number;
  interactive: number;
  /** Compressed bytes of the landing, and of all chunks of its entry. */
  startBytes: number;
  totalBytes: number;
  /** The plan as it is. */
  present: boolean;
}

const FLOORS = [1000, 2000, 4000, 8000, 16_000, 32_000, 64_000, 128_000, 256_000, 512_000];
const ONE_FILE = Number.MAX_SAFE_INTEGER;
/** Above so many modules a file each is no plan that anybody would ship, and takes long to simulate. */
const MOST_FILES = 4000;

/**
 * What start time and bytes become when files are cut finer or coarser: one per module, as they come out, with growing
 * size floors, all in one. Everything else of the plan stays. Computed, not drawn: each point is a whole prediction, made when it is asked for.
 */
export function* granularity(
  snapshot: Snapshot,
  plan: Plan,
  route: string,
  conditions: Conditions,
): Generator<GrainPoint> {
  const bare = ['floor', 'grain'].reduce(withoutSubject, plan);
  const floorNow = plan.decisions.reduce((now, d) => (d.kind === 'floor' ? d.bytes : now), 0);
  const perModuleNow = plan.decisions.some((d) => d.kind === 'grain');
  const ways: { floor: number; perModule: boolean }[] = [
    ...(snapshot.modules.length <= MOST_FILES ? [{ floor: 0, perModule: true }] : []),
    { floor: 0, perModule: false },
    ...FLOORS.map((floor) => ({ floor, perModule: false })),
    { floor: ONE_FILE, perModule: false },
  ];
  const isPresent = (way: { floor: number; perModule: boolean }) =>
    way.floor === floorNow && way.perModule === perModuleNow;
  if (!ways.some(isPresent)) ways.push({ floor: floorNow, perModule: perModuleNow });
  ways.sort((a, b) => Number(b.perModule) - Number(a.perModule) || a.floor - b.floor);
  for (const way of ways) {
    const wishes: Decision[] = [
      ...(way.perModule ? [{ kind: 'grain' } as const] : []),
      ...(way.floor > 0 ? [{ kind: 'floor', bytes: way.floor } as const] : []),
    ];
    const { graph, reading } = predict(snapshot, wishes.reduce(withDecision, bare), route, conditions);
    const realm = snapshot.routes.find((r) => r.pattern === route)?.realm;
    const own = graph.chunks.filter((c) => c.realm === realm);
    yield {
      ...way,
      chunks: own.length,
      requests: reading.readout.requests,
      firstContent: reading.milestones.firstContent,
      interactive: reading.milestones.interactive,
      startBytes: reading.readout.startBytes,
      totalBytes: own.reduce((sum, c) => sum + c.bytes.gzip, 0),
      present: isPresent(way),
    };
  }
}
