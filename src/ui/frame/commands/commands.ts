import { counted } from '../../../core/text/counted.ts';
import { STATION_IDS, STATIONS } from '../../../core/vocabulary/stations.ts';
import { adviceNow, showFinding } from '../../state/advice.ts';
import { useKeptConditions } from '../../state/own-conditions.ts';
import { goTo } from '../../state/stations.ts';
import type { Workbench } from '../../state/workbench/types.ts';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';
import { CACHE_OPTIONS, deviceOptions, linkOptions } from '../condition-options.ts';
import { useReadDialog } from '../drop.ts';
import { openSheet } from '../sheets/open-sheet.ts';
import { toggleTheme } from '../theme.ts';

export interface Command {
  group: string;
  words: string;
  /** What stands beside it: a key, or a figure. */
  note?: string;
  run: () => void;
}

const MOST_FINDINGS = 30;

/** All that can be done from anywhere, as the workbench is now. */
export function commands(): Command[] {
  const { app, project, choose, choosePlan, undo, redo, done, undone, ...bench } = useWorkbench.getState();
  const plan = storedPlan({ project, planId: bench.planId });
  const stations = STATION_IDS.map(
    (id): Command => ({
      group: 'Go to',
      words: STATIONS[id].name,
      note: STATIONS[id].key,
      run: () => goTo(id),
    }),
  );
  const routes = (app?.routes ?? [])
    .filter((r) => r.pattern !== bench.route)
    .map(
      ({ pattern }): Command => ({
        group: 'Land on',
        words: pattern,
        run: () => choose({ route: pattern, selection: null }),
      }),
    );
  const plans = [
    { id: null, name: 'Baseline', note: 'as built' },
    ...(project?.plans ?? []).map((p) => ({
      id: p.id,
      name: p.name,
      note: `${counted(p.decisions.length, 'decision')}`,
    })),
  ]
    .filter((p) => p.id !== bench.planId)
    .map(({ id, name, note }): Command => ({ group: 'Open plan', words: name, note, run: () => choosePlan(id) }));
  const findings = adviceNow()
    .slice(0, MOST_FINDINGS)
    .map(
      (f): Command => ({
        group: 'Finding',
        words: f.what,
        run: () => showFinding(f),
      }),
    );
  return [
    ...stations,
    ...doing({ plan: plan !== null, undo, redo, last: done.at(-1), next: undone.at(-1) }),
    ...routes,
    ...plans,
    ...underOther(bench, choose),
    ...findings,
  ];
}

/** Links, devices and caches that could be predicted under instead. */
function underOther(now: Pick<Workbench, 'linkId' | 'deviceId' | 'cache'>, choose: Workbench['choose']): Command[] {
  const kept = useKeptConditions.getState();
  return [
    ...linkOptions(kept.links)
      .filter((l) => l.value !== now.linkId)
      .map(
        ({ value, label, note }): Command => ({
          group: 'Link',
          words: label,
          note,
          run: () => choose({ linkId: value }),
        }),
      ),
    ...deviceOptions(kept.devices)
      .filter((d) => d.value !== now.deviceId)
      .map(
        ({ value, label, note }): Command => ({
          group: 'Device',
          words: label,
          note,
          run: () => choose({ deviceId: value }),
        }),
      ),
    ...CACHE_OPTIONS.filter((c) => c.value !== now.cache).map(
      ({ value, label, note }): Command => ({
        group: 'Cache',
        words: label,
        note,
        run: () => choose({ cache: value }),
      }),
    ),
  ];
}

interface Doable {
  plan: boolean;
  undo: () => void;
  redo: () => void;
  last: { words: string } | undefined;
  next: { words: string } | undefined;
}

/** What can be done wherever one is. */
function doing({ plan, undo, redo, last, next }: Doable): Command[] {
  const group = 'Do';
  return [
    ...(last ? [{ group, words: `Undo “${last.words}”`, note: 'Ctrl Z', run: undo }] : []),
    ...(next ? [{ group, words: `Redo “${next.words}”`, note: 'Ctrl Shift Z', run: redo }] : []),
    ...(plan ? [{ group, words: 'List the decisions', note: 'l', run: () => openSheet('plan') }] : []),
    { group, words: 'Link and device by values', note: 'c', run: () => openSheet('conditions') },
    { group, words: 'Read another app', run: () => useReadDialog.setState({ open: true }) },
    { group, words: 'Light or dark', note: 't', run: toggleTheme },
    { group, words: 'Words, and what they mean', note: 'w', run: () => openSheet('words') },
    { group, words: 'Keys', note: '?', run: () => openSheet('keys') },
  ];
}
