import type { Limit } from '../core/limits/types.ts';
import { DEFAULT_CONDITIONS } from '../core/sim/conditions.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { part, route, sketch } from './snapshots.ts';

/** An app with a page, a dialog behind an action, and a library that only the dialog needs. */
export function limitedApp(pageImports: string[] = ['src/dialog.ts'], deferred = true): Snapshot {
  const open = part('dialog', 'src/dialog.ts', { place: 'action', action: 'open' });
  return sketch(
    {
      'src/main.ts': { bytes: 20_000, imports: ['src/page.ts'] },
      'src/page.ts': {
        bytes: 30_000,
        imports: pageImports.map((p) => (p === 'src/dialog.ts' && deferred ? `~${p}` : p)),
      },
      'src/dialog.ts': { bytes: 8000, imports: ['lib/heavy.js'] },
      'src/near.ts': { bytes: 900, imports: ['lib/heavy.js'] },
      'lib/heavy.js': { bytes: 240_000, package: 'heavy' },
    },
    { routes: [route('/', 'src/page.ts', { parts: [open] })] },
  );
}

/** A limit on the bytes of the landing at /, or another one by `more`. */
export const limit = (more: Partial<Limit> = {}): Limit => ({
  route: '/',
  measure: 'start bytes',
  most: 30_000,
  link: DEFAULT_CONDITIONS.link.id,
  device: DEFAULT_CONDITIONS.device.id,
  cache: 'empty',
  ...more,
});
