import fc from 'fast-check';
import { parseFragment } from 'parse5';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import type { Decision, Plan } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { whyNotHinted } from '../text/address.ts';
import { csvLines } from '../text/table-text.ts';
import type { Hint } from '../vocabulary/hints.ts';
import { handoff } from './handoff.ts';
import { review } from './review.ts';
import type { ArtefactKind } from './types.ts';

/** What names and addresses of an app may hold that means something where they are put. */
const HOSTILE = [
  ...['\n', '\r', '\r\n', '\0', '\u2028', '\u202e', '\t', '"', "'", '`', '<', '>', '&', '\\', '{{', '}}', '|', '~~~'],
  ...[
    '-->',
    '--!>',
    '</script>',
    '<!--',
    '>; rel=preload',
    '\r\nSet-Cookie: a=b',
    '](javascript:alert(1))',
    '*/',
    '$' + '{x}',
  ],
  ...['=1+1', '@x', '-x', 'é', '\ud800', '%0d%0a', '# ', '$&'],
];
const hostile = fc
  .array(fc.oneof(fc.constantFrom(...HOSTILE), fc.constantFrom('a', 'b', ' ', '/', '.')), {
    minLength: 1,
    maxLength: 8,
  })
  .map((pieces) => pieces.join(''));

interface Names {
  address: string;
  module: string;
  pattern: string;
  base: string;
  name: string;
}

/** Everything that is handed over of an app whose names are these, by kind. */
function handed({ address, module, pattern, base, name }: Names): Record<ArtefactKind, string> {
  const app = sketch(
    { main: { imports: ['~home'] }, home: { imports: [`~${module}`] }, [module]: { bytes: 20_000 } },
    {
      base: `/${base}/`,
      routes: [
        route('/', 'home'),
        route(pattern, 'home', {
          content: [
            {
              ...{ kind: 'image', bytes: 9000, serverMs: 10, place: 'first screen', lazy: false, foundIn: 'document' },
              ...{ id: 'pic', address },
            } as const,
          ],
          parts: [part(module, module, { place: 'action' })],
        }),
      ],
    },
  );
  const hint = (more: Partial<Hint> & Pick<Hint, 'kind' | 'target'>): Decision => ({
    kind: 'hint',
    hint: { place: 'markup', routes: [pattern], ...more },
  });
  const image = { kind: 'asset', address } as const;
  const split = { kind: 'split point', module } as const;
  const plan: Plan = {
    name,
    description: name,
    decisions: [
      hint({ kind: 'preload', target: image }),
      hint({ kind: 'preload', target: image, place: 'header' }),
      hint({ kind: 'preload', target: image, place: 'early' }),
      hint({ kind: 'fetch priority', target: image, priority: 'high' }),
      hint({ kind: 'modulepreload', target: split }),
      hint({ kind: 'prefetch', target: split, place: 'header' }),
      hint({ kind: 'prefetch', target: split, place: 'script', on: { on: 'visible' } }),
      hint({ kind: 'prefetch document', target: { kind: 'route', pattern } }),
      { kind: 'trigger', splitPoint: module, fetch: { on: 'visible' } },
    ],
  };
  const all = [...handoff(app, plan, null).artefacts, ...review(app, plan, DEFAULT_CONDITIONS)];
  return Object.fromEntries(all.map((a) => [a.kind, a.text])) as Record<ArtefactKind, string>;
}

const names: fc.Arbitrary<Names> = fc.record({
  address: hostile.map((t) => `/img/${t}.png`),
  module: hostile.map((t) => `src/${t}.ts`),
  pattern: hostile.map((t) => `/x${t}`),
  base: hostile,
  name: hostile,
});

const eachIs = (text: string, allowed: RegExp) =>
  text
    .split(/\r\n|[\n\r\u2028\u2029\u0085\v\f]/)
    .filter((line) => line !== '' && !allowed.test(line))
    .map((line) => JSON.stringify(line));

describe('names and addresses from outside', () => {
  const check = (holds: (texts: Record<ArtefactKind, string>, of: Names) => void, runs = 150) =>
    fc.assert(
      fc.property(names, (n) => holds(handed(n), n)),
      { numRuns: runs },
    );

  it('add no header field and end none', () => {
    check((texts) => {
      for (const kind of ['headers', 'early-hints'] as const) {
        const text = texts[kind];
        expect(
          eachIs(
            text,
            /^(?:# .*|HTTP\/1\.1 103 Early Hints|Link: <(?:[!#-;=?-~]*|\{\{[^{}<>"]*\}\})>; rel=\w+[\w;= ]*)$/,
          ),
        ).toEqual([]);
        expect(text).not.toMatch(/[^\P{Cc}\n]/u);
      }
    });
  });

  it('add no element, attribute or comment to the markup', () => {
    check(({ markup }) => {
      for (const node of parseFragment(markup).childNodes) {
        const element = node as { nodeName: string; attrs?: { name: string }[]; value?: string };
        if (element.nodeName === '#text') expect(element.value?.trim()).toBe('');
        else if (element.nodeName !== '#comment') {
          expect(element.nodeName).toBe('link');
          for (const { name } of element.attrs!)
            expect(['rel', 'href', 'as', 'crossorigin', 'fetchpriority', 'media']).toContain(name);
        }
      }
      expect(eachIs(markup, /^(?:<!-- .* -->|<link .*>)$/)).toEqual([]);
    });
  });

  it('stay values of the JSON, and end no script element', () => {
    check((texts) => {
      for (const kind of ['speculation-rules', 'manifest'] as const)
        if (texts[kind] !== '') expect(() => JSON.parse(texts[kind])).not.toThrow();
      expect(texts['speculation-rules']).not.toContain('<');
    });
  });

  it('stay strings of the scripts', () => {
    check((texts) => {
      for (const kind of ['hint-script', 'triggers'] as const) {
        // What is left when every string is taken out holds nothing that came from a name.
        const bare = texts[kind].replace(/"(?:[^"\\\n]|\\.)*"/g, '""');
        expect(bare).not.toMatch(/Set-Cookie|alert|<\/script|\$\{x\}/);
        const body = texts[kind].replace(/^export /gm, '').replaceAll('import(', 'imported(');
        expect(() => new Function('imported', body)).not.toThrow();
      }
    });
  });

  it('add no line, table, heading or code to the report, nor a line to the list of files', () => {
    const tame = (address: string) => handed({ address, module: 'src/a.ts', pattern: '/x', base: 'b', name: 'Plan' });
    const closed = tame('/a.png');
    // Hints for an address with a place to fill in are refused, and the report says so line by line.
    const open = tame('/img/{x}.png');
    const linesOf = (text: string) => text.split(/\r\n|[\n\r\u2028\u2029\u0085]/).length;
    check((texts, { address }) => {
      const clean = whyNotHinted(address) === null ? closed : open;
      for (const kind of ['report', 'deploy'] as const) {
        expect(linesOf(texts[kind])).toBe(linesOf(clean[kind]));
        expect(texts[kind]).not.toMatch(/[^\P{Cc}\n]|[\u202a-\u202e\u2066-\u2069]/u);
      }
      expect(texts.report).not.toMatch(/(?<!\\)<|^~~~|(?<!\\)\]\(/m);
    });
  });

  it('are no formula for a table program', () => {
    for (const field of ['=1', ' =1', '\t=1', '\r\n@x', '+a', '-a', '＝1', '\0=1'])
      expect(csvLines([[field]])).toMatch(/^"?'/);
    for (const field of ['-1.5', '+2', 'a=1', '']) expect(csvLines([[field]])).not.toMatch(/^"?'/);
  });
});
