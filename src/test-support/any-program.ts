import type {
  Action,
  ActionMoment,
  Effect,
  Interaction,
  LinkHint,
  LoadProgram,
  MarkupItem,
  Resource,
  ResourceType,
  ScreenPart,
  ScriptMode,
  Step,
  VisitProgram,
} from '../core/load/types.ts';
import { type Conditions, DEVICES, LINKS } from '../core/sim/conditions.ts';
import { seeded } from '../core/sim/random.ts';
import { CACHE_STATES } from '../core/vocabulary/cache-states.ts';
import { file, page, screenPart } from './programs.ts';

/** Draws values: `upTo(n)` a whole number below n, `of` one of a list, `odds` true so often, `some` a part of a list in its order. */
class Draw {
  private readonly next: () => number;
  constructor(seed: number) {
    this.next = seeded(seed);
  }
  upTo(most: number): number {
    return Math.floor(this.next() * most);
  }
  odds(share: number): boolean {
    return this.next() < share;
  }
  of<T>(list: readonly T[]): T {
    return list[this.upTo(list.length)];
  }
  some<T>(list: readonly T[], share: number): T[] {
    return list.filter(() => this.odds(share));
  }
  /** Few large ones among many small ones. */
  bytes(most: number): number {
    return Math.round(300 + this.next() ** 3 * most);
  }
}

const ORIGINS = ['', '', '', 'https://cdn.example', 'https://map.example'];
const MODES: readonly ScriptMode[] = ['blocking', 'async', 'defer', 'module', 'module-async'];
const MOMENTS: readonly ActionMoment[] = ['eval', 'paint', 'idle', 'quiet', 'load', 'timer', 'visible', 'drawn'];
const RELS: readonly LinkHint['rel'][] = ['preload', 'modulepreload', 'prefetch', 'preconnect', 'dns-prefetch'];
const MEDIA = [{}, {}, {}, { media: { minWidth: 700 } }, { media: { maxWidth: 500 } }];
const URGENCY = [{}, {}, { fetchpriority: 'high' }, { fetchpriority: 'low' }] as const;
/** The destination that a preload names for what it fetches. */
const AS: Record<ResourceType, string> = {
  script: 'script',
  style: 'style',
  image: 'image',
  font: 'font',
  fetch: 'fetch',
};

function resources(draw: Draw): Resource[] {
  const types: ResourceType[] = ['style', 'style', 'image', 'image', 'font', 'fetch', 'fetch'];
  const scripts = 4 + draw.upTo(8);
  return [...Array<ResourceType>(scripts).fill('script'), ...types].map((type, i) =>
    file(`/${type}-${i}`, {
      type,
      origin: draw.of(ORIGINS),
      bytes: draw.bytes(type === 'script' ? 200_000 : 60_000),
      serverMs: draw.upTo(80),
      cache: draw.of(['immutable', 'immutable', 'revalidate', 'no-store'] as const),
      cpuMs: type === 'script' ? draw.upTo(30) : 0,
      estimatedBytes: type === 'script' && draw.odds(0.5) ? draw.bytes(300_000) : 0,
      ...(type === 'script' && draw.odds(0.4) ? { codeBytes: draw.bytes(500_000) } : {}),
      purpose: type === 'script' ? draw.of(['start', 'start', 'later', 'other script'] as const) : 'content',
      imports: type === 'script' && draw.odds(0.3) ? draw.some([...Array(scripts).keys()].slice(i + 1), 0.3) : [],
      ...(draw.odds(0.1) ? { changes: true } : {}),
      ...(draw.odds(0.05) ? { unknownSize: true, bytes: 0 } : {}),
    }),
  );
}

/** A page with its parts: what effects and hints can speak of. */
interface Scene {
  draw: Draw;
  files: readonly Resource[];
  groups: number;
  parts: number;
}

const ofType = (scene: Scene, type: ResourceType) =>
  scene.draw.of(scene.files.flatMap((f, i) => (f.type === type ? [i] : [])));

function hint(scene: Scene): LinkHint {
  const { draw, files } = scene;
  const rel = draw.of(RELS);
  const about = { rel, chosen: draw.odds(0.7), ...draw.of(MEDIA), ...draw.of(URGENCY) };
  if (rel === 'preconnect' || rel === 'dns-prefetch')
    return { ...about, resource: -1, origin: draw.of(ORIGINS.slice(3)), crossorigin: draw.odds(0.4) };
  const resource = rel === 'modulepreload' ? ofType(scene, 'script') : draw.upTo(files.length);
  return {
    ...about,
    resource,
    ...(rel === 'preload' ? { as: AS[files[resource].type] } : {}),
    ...(draw.odds(0.4) ? { crossorigin: true } : {}),
    ...(draw.odds(0.1) ? { notForDataSaver: true } : {}),
    ...(draw.odds(0.1) ? { keptByApp: true } : {}),
  };
}

/** One of each kind of effect. */
const EFFECTS: { [K in Effect['kind']]: (scene: Scene) => Extract<Effect, { kind: K }> } = {
  import: ({ draw, groups }) => ({ kind: 'import', group: draw.upTo(groups) }),
  script: ({ draw, groups }) => ({ kind: 'script', group: draw.upTo(groups), ordered: draw.odds(0.3) }),
  fetch: (scene) => ({
    kind: 'fetch',
    resource: ofType(scene, 'fetch'),
    ...(scene.draw.odds(0.3) ? { maxAgeMs: scene.draw.upTo(2000) } : {}),
    ...(scene.draw.odds(0.2) ? { ahead: true } : {}),
  }),
  img: (scene) => ({ kind: 'img', resource: ofType(scene, 'image') }),
  link: (scene) => ({ kind: 'link', hint: hint(scene) }),
  rule: ({ draw }) => ({
    kind: 'rule',
    does: draw.of(['fetch', 'prepare'] as const),
    address: '/next',
    instead: [],
    ...draw.of(MEDIA),
  }),
  cpu: ({ draw }) => ({ kind: 'cpu', ms: draw.upTo(90), name: 'work' }),
  scroll: ({ draw, parts }) => ({ kind: 'scroll', part: draw.upTo(parts) }),
  render: ({ draw, parts }) => ({ kind: 'render', part: draw.upTo(parts) }),
};
const effect = (scene: Scene): Effect => EFFECTS[scene.draw.of(Object.keys(EFFECTS) as Effect['kind'][])](scene);
const action = (scene: Scene): Action => ({
  when: scene.draw.of(MOMENTS),
  delayMs: scene.draw.of([0, 0, 10, 250]),
  target: scene.draw.upTo(scene.parts),
  ...scene.draw.of(MEDIA),
  do: effect(scene),
});
const several = <T>(draw: Draw, most: number, make: () => T): T[] => Array.from({ length: draw.upTo(most + 1) }, make);

function parts(scene: Scene): ScreenPart[] {
  const { draw } = scene;
  const need = () => ({
    resource: ofType(scene, 'script'),
    state: draw.of(['evaluated', 'evaluated', 'arrived'] as const),
  });
  return Array.from({ length: scene.parts }, (_, i) =>
    screenPart(`part-${i}`, {
      place: draw.of(['first screen', 'first screen', 'below', 'later'] as const),
      drawnBy: draw.of(['script', 'script', 'document'] as const),
      interactive: draw.odds(0.7),
      needs: several(draw, 2, need),
      after: i > 0 && draw.odds(0.5) ? [draw.upTo(i)] : [],
      fill: draw.odds(0.4) ? [ofType(scene, 'image')] : [],
      renderMs: draw.upTo(40),
      onItsOwn: draw.odds(0.8),
      ...(draw.odds(0.4)
        ? {
            fonts: [
              {
                resource: ofType(scene, 'font'),
                declaredBy: ofType(scene, 'style'),
                display: draw.of(['auto', 'block', 'swap', 'fallback', 'optional'] as const),
              },
            ],
          }
        : {}),
      ...(draw.odds(0.3)
        ? { fallback: { show: draw.of(['stand-in', 'nothing'] as const), holdMs: draw.of([0, 300]) } }
        : {}),
      ...(draw.odds(0.2) ? { standInNeeds: [need()] } : {}),
      ...(draw.odds(0.2) ? { answerNeeds: [need()] } : {}),
      ...(draw.odds(0.2)
        ? { showWhen: { when: draw.of(MOMENTS), delayMs: draw.of([0, 40]), target: draw.upTo(scene.parts) } }
        : {}),
      ...(draw.odds(0.15) ? { screens: draw.of([{ minWidth: 700 }, { maxWidth: 500 }]) } : {}),
      ...(draw.odds(0.1) ? { held: { on: 'event', name: 'sent' } as const } : {}),
      ...(draw.odds(0.2) ? { together: draw.of(['one', 'other']) } : {}),
      ...(draw.odds(0.3) ? { tellsFailure: true } : {}),
    }),
  );
}

function markup(scene: Scene, bytes: number): MarkupItem[] {
  const { draw, files, groups } = scene;
  const items: (() => MarkupItem[])[] = [
    () => [{ at: 0, tag: 'link', ...hint(scene) }],
    () => [
      { at: 0, tag: 'link', rel: 'stylesheet', resource: ofType(scene, 'style'), chosen: false, ...draw.of(MEDIA) },
    ],
    () => [{ at: 0, tag: 'script', group: draw.upTo(groups), mode: draw.of(MODES), ...draw.of(URGENCY) }],
    () => [{ at: 0, tag: 'script', group: draw.upTo(groups), mode: draw.of(MODES) }],
    () => [
      { at: 0, tag: 'inline', name: 'inline', cpuMs: draw.upTo(20), follow: several(draw, 2, () => action(scene)) },
    ],
    () => [{ at: 0, tag: 'rules', do: [EFFECTS.rule(scene)] }],
  ];
  const inBody: (() => MarkupItem[])[] = [
    ...items,
    () => [{ at: 0, tag: 'text', part: draw.upTo(scene.parts) }],
    () => [
      {
        ...{ at: 0, tag: 'img', resource: ofType(scene, 'image') },
        ...{ lazy: draw.odds(0.3), inView: draw.odds(0.6), ...draw.of(URGENCY) },
      },
    ],
  ];
  const first: MarkupItem = { at: 0, tag: 'script', group: 0, mode: draw.of(MODES) };
  const head = [first, ...Array.from({ length: 2 + draw.upTo(4) }, () => draw.of(items)()).flat()];
  const body = Array.from({ length: draw.upTo(6) }, () => draw.of(inBody)()).flat();
  const all: MarkupItem[] = [...head, { at: 0, tag: 'body' }, ...body];
  const step = Math.floor(bytes / (all.length + files.length + 1));
  return all.map((item, i) => ({ ...item, at: step * (i + 1) }));
}

function steps(scene: Scene): Step[] {
  const { draw } = scene;
  return several(draw, 2, () => scene).map((_, i): Step => {
    const about = { id: `step ${i}`, atMs: 500 + draw.upTo(6000), ready: [ofType(scene, 'script')] };
    const does = several(draw, 2, () => effect(scene));
    return draw.odds(0.5)
      ? { ...about, kind: 'click', do: does }
      : { ...about, kind: 'hover', leadMs: draw.upTo(300), do: does, clickDo: [effect(scene)] };
  });
}

/** A page that nobody would write, with something of everything that a load program can say. The same seed gives the same. */
export function anyProgram(seed: number): LoadProgram {
  const draw = new Draw(seed);
  const files = resources(draw);
  const scripts = files.flatMap((f, i) => (f.type === 'script' ? [i] : []));
  const groups = scripts.map((r, i) => ({
    name: files[r].name,
    resources: draw.odds(0.3) && i > 0 ? [scripts[draw.upTo(i)], r] : [r],
    after: draw.odds(0.2) && i > 0 ? [draw.upTo(i)] : [],
    loader: draw.of(['listed', 'listed', 'discovered'] as const),
  }));
  const scene: Scene = { draw, files, groups: groups.length, parts: 2 + draw.upTo(4) };
  const active = files.map((f) => (f.type === 'script' ? { ...f, follow: several(draw, 2, () => action(scene)) } : f));
  const bytes = 2000 + draw.bytes(40_000);
  const program = page(markup(scene, bytes), active, {
    groups,
    parts: parts(scene),
    steps: steps(scene),
    ...(draw.odds(0.3) ? { placeholders: { holdMs: 500, ...(draw.odds(0.5) ? { nested: true as const } : {}) } } : {}),
  });
  Object.assign(program.document, {
    bytes,
    serverMs: draw.upTo(200),
    cache: draw.of(['no-store', 'revalidate'] as const),
    earlyHints: several(draw, 2, () => hint(scene)),
    linkHeader: several(draw, 2, () => hint(scene)),
    flush: draw.odds(0.4) ? [{ upTo: Math.floor(bytes / 2), atMs: draw.upTo(300) }] : [],
    ...(draw.odds(0.2) ? { redirects: [{ origin: draw.of(ORIGINS), serverMs: draw.upTo(50) }] } : {}),
  });
  return program;
}

/** Circumstances of every kind. */
export function anyConditions(seed: number): Conditions {
  const draw = new Draw(seed * 7919 + 13);
  const protocol = draw.of(['h1', 'h2', 'h2', 'h3', 'h2-h3'] as const);
  const link = {
    ...draw.of(LINKS),
    protocol,
    tls: draw.of(['1.2', '1.3', ...(protocol === 'h1' ? (['none'] as const) : [])] as const),
    serverScheduling: draw.of(['fifo', 'urgency', 'shared'] as const),
    ...(draw.odds(0.2) ? { resolverMs: draw.upTo(60) } : {}),
    ...(draw.odds(0.3) ? { queuePackets: 8 + draw.upTo(60) } : {}),
    ...(draw.odds(0.2) ? { lossPercent: 2, lossSeed: 1 + draw.upTo(9) } : {}),
  };
  const device = { ...draw.of(DEVICES), dataSaver: draw.odds(0.1), ...(draw.odds(0.2) ? { backgroundFactor: 2 } : {}) };
  return { link, device, cache: draw.of(CACHE_STATES) };
}

/** A visit of such a page: what happens in it, then perhaps the same page once more. */
export function anyVisit(seed: number): VisitProgram {
  const draw = new Draw(seed * 104_729 + 7);
  const program = anyProgram(seed);
  const scene: Scene = { draw, files: program.resources, groups: program.groups.length, parts: program.parts.length };
  const kinds = ['move', 'act', 'scroll', 'condition'] as const;
  const interactions = Array.from({ length: 2 + draw.upTo(3) }, (_, i): Interaction => {
    const shown = draw.upTo(scene.parts);
    return {
      ...{ id: `interaction ${i}`, kind: draw.of(kinds), name: `interaction ${i}` },
      hides: draw.some([...program.parts.keys()], 0.2),
      shows: [shown],
      until: draw.of(['shown', 'answering'] as const),
      first: draw.odds(0.3) ? [ofType(scene, 'fetch')] : [],
      approach: several(draw, 2, () => action(scene)),
      act: [{ when: 'timer', do: { kind: 'render', part: shown } }, ...several(draw, 2, () => action(scene))],
    };
  });
  const opened = (begins: 'landing' | 'link' | 'return', leaves: boolean): VisitProgram['documents'][number] => ({
    ...{ program: { ...program, interactions }, begins, awayMs: begins === 'return' ? 60_000 : 0 },
    main: draw.upTo(scene.parts + 1) - 1,
    conditions: [],
    steps: [
      ...interactions.map((_, interaction) => ({
        ...{
          index: interaction,
          does: draw.of(['interaction', 'interaction', 'approach'] as const),
          interaction,
          conditions: [],
        },
        ...{ dwellMs: draw.upTo(3000), leadMs: draw.upTo(300) },
      })),
      ...(leaves
        ? [{ index: 9, does: 'leave' as const, interaction: -1, conditions: [], dwellMs: 100, leadMs: 0 }]
        : []),
    ],
  });
  return { documents: [opened('landing', true), opened(draw.of(['link', 'return']), false)] };
}
