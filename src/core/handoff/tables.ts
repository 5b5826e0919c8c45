import type { ChunkGraph } from '../chunks/types.ts';
import { startsOf } from '../inventory/starts.ts';
import type { Milestones, Reading, Readout } from '../metrics/readout.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { shipped } from '../ship/shipped.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { csvLines } from '../text/table-text.ts';
import type { Addresses } from './addresses.ts';
import type { RehearsedLanding } from './types.ts';

/** Figures of one route's landing: times in ms, sizes in bytes. */
export type RouteFigures = Pick<Milestones, 'firstContent' | 'firstScreenComplete' | 'interactive'> &
  Pick<Readout, 'startBytes' | 'otherScripts' | 'alsoFetched' | 'requests' | 'hops'>;

export interface RouteChange {
  pattern: string;
  /** Files of unknown size that the landing rests on, under the plan. */
  unknown: string[];
  before: RouteFigures;
  after: RouteFigures;
}

/** What every landing comes to as built, and with the plan. */
export function routeChanges(app: Snapshot, plan: Plan, conditions: Conditions): RouteChange[] {
  const reading = (of: Plan, pattern: string) => predict(shipped(app, of).snapshot, of, pattern, conditions).reading;
  const figures = ({ milestones, readout }: Reading): RouteFigures => {
    const { firstContent, firstScreenComplete, interactive } = milestones;
    const { startBytes, otherScripts, alsoFetched, requests, hops } = readout;
    return { firstContent, firstScreenComplete, interactive, startBytes, otherScripts, alsoFetched, requests, hops };
  };
  return app.routes.map(({ pattern }) => {
    const after = reading(plan, pattern);
    return { pattern, unknown: after.unknown, before: figures(reading(BASELINE, pattern)), after: figures(after) };
  });
}

const COLUMNS = [
  ...(['firstContent', 'firstScreenComplete', 'interactive', 'startBytes'] as const),
  ...(['otherScripts', 'alsoFetched', 'requests', 'hops'] as const),
] as const satisfies readonly (keyof RouteFigures)[];

const SEEN = ['firstContent', 'interactive'] as const;

/** The same as comma-separated values (RFC 4180), one line for each route; with what was rehearsed, where anything was. */
export function csvText(changes: readonly RouteChange[], rehearsed: readonly RehearsedLanding[] = []): string {
  const seen = rehearsed.length > 0 ? SEEN : [];
  const head = [
    'route',
    ...COLUMNS.flatMap((c) => [`${c} as built`, `${c} with the plan`]),
    ...seen.flatMap((c) => [`${c} rehearsed as built`, `${c} rehearsed with the plan`]),
  ];
  const lines = changes.map(({ pattern, before, after }) => {
    const of = rehearsed.find((r) => r.pattern === pattern);
    return [
      pattern,
      ...COLUMNS.flatMap((c) => [number(before[c]), number(after[c])]),
      ...seen.flatMap((c) => [of?.[c].before, of?.[c].after].map((s) => (s ? number(s.ms) : ''))),
    ];
  });
  return csvLines([head, ...lines]);
}

function number(value: number): string {
  return Number.isFinite(value) ? String(Math.round(value * 10) / 10) : '';
}

/** Which files each route's start and each split point ask for, as JSON: `{ files, routes, splitPoints }`. */
export function manifestText(snapshot: Snapshot, plan: Plan, graph: ChunkGraph, addresses: Addresses): string {
  const files = Object.fromEntries(
    graph.chunks.map((c, at) => [
      addresses.of(at),
      {
        kind: c.kind,
        bytes: { minified: Math.round(c.bytes.minified), gzip: Math.round(c.bytes.gzip) },
        modules: c.modules.map((m) => snapshot.modules[m].path),
      },
    ]),
  );
  const of = (group: readonly number[]) => group.map((c) => addresses.of(c));
  const routes = Object.fromEntries(
    startsOf(snapshot, plan).starts.map(({ route: { pattern, page, layouts }, chunks }) => [
      pattern,
      { page, layouts, files: of([...chunks]) },
    ]),
  );
  const splitPoints = Object.fromEntries(
    graph.roots.flatMap((r) =>
      r.kind === 'split point' ? [[snapshot.modules[r.target[0]].path, { files: of(r.group) }] as const] : [],
    ),
  );
  return JSON.stringify({ files, routes, splitPoints }, null, 2);
}
