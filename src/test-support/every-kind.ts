import { SCRIPT_PLACEMENTS } from '../core/snapshot/document-types.ts';
import { DEFERRED_CONTEXTS } from '../core/snapshot/module-types.ts';
import { PART_PLACES, type PartCondition } from '../core/snapshot/route-types.ts';
import { NOTICE_KINDS, type Snapshot } from '../core/snapshot/types.ts';
import { part, route, sketch } from './snapshots.ts';

const CONDITIONS: Record<PartCondition['kind'], PartCondition> = {
  media: { kind: 'media', maxWidth: 600 },
  answer: { kind: 'answer', of: 'd' },
  segment: { kind: 'segment', segment: 'crew' },
  'one of': { kind: 'one of', group: 'g' },
};

/** A snapshot with every kind of everything that a reading can find. */
export const EVERY_KIND: Snapshot = {
  ...sketch(
    {
      main: { imports: ['page', 'style', 'json', 'asset'] },
      page: { imports: ['~part'] },
      part: {},
      style: { kind: 'style' },
      json: { kind: 'json' },
      asset: { kind: 'asset' },
    },
    {
      routes: [
        route('/', 'page', {
          data: [{ id: 'd', address: '/d', bytes: 1, serverMs: 2, module: 'page' }],
          parts: [
            ...PART_PLACES.filter((p) => p !== 'conditional').map((place) => part(place, 'part', { place })),
            ...Object.values(CONDITIONS).map((condition) =>
              part(condition.kind, 'part', { place: 'conditional', condition }),
            ),
          ],
        }),
      ],
      notices: NOTICE_KINDS.map((kind) => ({ kind, path: 'main', message: 'so it is' })),
      scripts: SCRIPT_PLACEMENTS.flatMap((placement, at) =>
        [at, null].map((bytes) => ({
          ...{ id: `${placement} ${bytes}`, name: placement, address: `/${at}-${bytes}.js`, bytes },
          ...{ serverMs: 1, evaluationMs: 1, placement, evidence: null },
        })),
      ),
      packages: [{ name: 'pack', version: '1.0.0', folder: 'node_modules/pack' }],
      links: [
        {
          ...{ realm: 'site', rel: 'preload', address: '/a.woff2', as: 'font', crossorigin: true, priority: 'auto' },
          ...{ bytes: 5, evidence: { path: 'index.html', line: 3 } },
        },
      ],
      unresolved: [{ from: 'main', specifier: 'gone', line: 1, reason: 'it is gone', leftOut: false }],
      failed: [{ path: 'torn.js', line: 4, message: 'it is torn' }],
      unusedRules: [{ module: 'style', line: 2, selector: '.a', bytes: 9, missing: ['a'] }],
      sheetUses: [{ module: 'style', by: ['main'] }],
    },
  ),
};
EVERY_KIND.imports = EVERY_KIND.imports.flatMap((item) =>
  item.kind === 'dynamic' ? DEFERRED_CONTEXTS.map((context, ordinal) => ({ ...item, context, ordinal })) : [item],
);
