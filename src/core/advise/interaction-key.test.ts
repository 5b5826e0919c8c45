import type { Interaction, LoadProgram, Resource, ScreenPart } from '../load/types.ts';
import { interactionKey } from './interaction-key.ts';

/** Which number each thing has. */
interface Numbers {
  r: readonly number[];
  g: readonly number[];
  p: readonly number[];
}

const resource = (name: string, more: Partial<Resource>): Resource => ({
  ...{ address: `/${name}`, name, origin: '', type: 'script', bytes: 9, serverMs: 8, cache: 'immutable', cpuMs: 7 },
  ...{ estimatedBytes: 6, imports: [], follow: [], purpose: 'later' },
  ...more,
});
const part = (id: string, more: Partial<ScreenPart>): ScreenPart => ({
  ...{ id, name: id, place: 'later', drawnBy: 'script', interactive: true, needs: [], after: [], fill: [] },
  ...{ renderMs: 3, onItsOwn: true },
  ...more,
});

/** A program and an interaction with one of everything that an interaction can lead to, under any numbers. */
function made({ r, g, p }: Numbers): { program: Pick<LoadProgram, 'resources' | 'groups' | 'parts'>; of: Interaction } {
  const need = { resource: r[0], state: 'evaluated' as const };
  const resources = [
    resource('code', {
      ...{ imports: [r[1]], awaits: [g[1]], chunk: 4, idle: [{ bytes: 5, unless: [] }], changes: true, codeBytes: 50 },
      follow: [{ when: 'drawn', target: p[1], media: { minWidth: 300 }, do: { kind: 'img', resource: r[2] } }],
    }),
    resource('more', { tabledBytes: 3 }),
    resource('picture', { type: 'image', purpose: 'content' }),
    resource('font', { type: 'font', document: true, unknownSize: true }),
  ];
  const groups = [
    { name: 'first', resources: [r[0], r[1]], after: [g[1]], loader: 'listed' as const },
    { name: 'second', resources: [r[1]], after: [], loader: 'discovered' as const },
  ];
  const parts = [
    part('dialog', {
      ...{ route: '/', needs: [need], after: [p[1]], fill: [r[2]], measured: true, answerNeeds: [need] },
      ...{ standInNeeds: [{ resource: r[1], state: 'arrived' }], together: 'both', tellsFailure: false },
      ...{ fallback: { show: 'stand-in', holdMs: 4 }, screens: { maxWidth: 900 } },
      fonts: [{ resource: r[3], declaredBy: r[2], display: 'swap' }],
      showWhen: { when: 'timer', delayMs: 20, target: p[2] },
    }),
    part('page', { showWhen: { when: 'quiet' } }),
    part('note', { held: { on: 'event', name: 'told' } }),
  ];
  const of: Interaction = {
    ...{ id: 'open', kind: 'act', name: 'open', until: 'shown', first: [r[3]], shows: [p[0]], hides: [p[1]] },
    approach: [
      { when: 'eval', after: need, do: { kind: 'import', group: g[0] } },
      { when: 'eval', do: { kind: 'fetch', resource: r[2], maxAgeMs: 30, ahead: true } },
    ],
    act: [
      { when: 'eval', delayMs: 5, do: { kind: 'script', group: g[1], ordered: true } },
      { when: 'paint', do: { kind: 'cpu', ms: 3, name: 'sums' } },
      { when: 'eval', do: { kind: 'scroll', part: p[2] } },
      { when: 'eval', do: { kind: 'render', part: p[0] } },
      {
        when: 'idle',
        do: {
          ...{ kind: 'rule', does: 'fetch', address: '/next', media: { minWidth: 500 } },
          instead: [{ kind: 'img', resource: r[2] }],
        },
      },
      {
        when: 'eval',
        do: {
          kind: 'link',
          hint: {
            ...{ rel: 'preload', resource: r[1], origin: 'https://x.example', as: 'script', crossorigin: true },
            ...{ fetchpriority: 'low', media: { maxWidth: 700 }, notForDataSaver: true, keptByApp: true, chosen: true },
          },
        },
      },
    ],
  };
  const placed = <T>(all: T[], at: readonly number[]) => all.map((_, n) => all[at.indexOf(n)]);
  return { program: { resources: placed(resources, r), groups: placed(groups, g), parts: placed(parts, p) }, of };
}

const AS_WRITTEN: Numbers = { r: [0, 1, 2, 3], g: [0, 1], p: [0, 1, 2] };
const keyOf = ({ program, of }: ReturnType<typeof made>) => interactionKey(program as LoadProgram, of);

/** Fields that hold numbers of other things, and those that change nothing that happens. */
const NUMBERS = new Set([
  ...['resource', 'resources', 'group', 'part', 'target', 'imports', 'awaits', 'fill', 'declaredBy'],
  ...['first', 'shows', 'hides'],
]);
const NOTHING = new Set(['chunk', 'idle']);
/** How an interaction is called, which no one waits for. */
const CALLED = new Set(['of.id', 'of.name']);

/** Every value below something, with what leads to it. */
function leaves(value: unknown, way: string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [way];
  return Object.entries(value).flatMap(([key, inner]) => leaves(inner, [...way, key]));
}

/** What holds the value to which something leads. */
function holderOf(whole: unknown, way: readonly string[]): Record<string, unknown> {
  return way.slice(0, -1).reduce((at, key) => at[key] as never, whole as Record<string, unknown>);
}

function altered<T>(whole: T, way: readonly string[]): T {
  const copy = structuredClone(whole);
  const holder = holderOf(copy, way);
  const last = way.at(-1)!;
  const was = holder[last];
  holder[last] = typeof was === 'boolean' ? !was : typeof was === 'number' ? was + 1 : `${was}x`;
  return copy;
}

describe('the key of an interaction', () => {
  it.each<[string, Numbers]>([
    ['the other way round', { r: [3, 2, 1, 0], g: [1, 0], p: [2, 1, 0] }],
    ['mixed', { r: [2, 0, 3, 1], g: [0, 1], p: [1, 2, 0] }],
  ])('is the same whatever numbers things have: %s', (_, numbers) => {
    expect(keyOf(made(numbers))).toBe(keyOf(made(AS_WRITTEN)));
  });

  const whole = made(AS_WRITTEN);
  const isNumber = (way: readonly string[]) =>
    way.some((key, at) => NUMBERS.has(key) && (at > 1 || way[0] === 'of')) ||
    (way.includes('after') && !way.includes('state'));
  const values = leaves(whole).filter(
    (way) => !isNumber(way) && !way.some((key) => NOTHING.has(key)) && !CALLED.has(way.join('.')),
  );

  it.each(values.map((way) => [way.join('.')]))('is another one where %s is', (way) => {
    expect(keyOf(altered(whole, way.split('.')))).not.toBe(keyOf(whole));
  });

  it('is another one where something else is led to', () => {
    const others = ['act.0.do.group', 'act.2.do.part', 'approach.1.do.resource', 'first.0', 'shows.0'].map((way) => {
      const copy = structuredClone(whole);
      const keys = ['of', ...way.split('.')];
      const holder = holderOf(copy, keys) as Record<string, number>;
      holder[keys.at(-1)!] = holder[keys.at(-1)!] === 0 ? 1 : 0;
      return keyOf(copy);
    });
    expect(new Set([keyOf(whole), ...others]).size).toBe(others.length + 1);
  });

  it('is the same whatever changes nothing that happens', () => {
    for (const way of ['program.resources.0.chunk', 'program.resources.0.idle.0.bytes', 'of.name'])
      expect(keyOf(altered(whole, way.split('.')))).toBe(keyOf(whole));
  });
});
