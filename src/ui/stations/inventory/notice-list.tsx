'use client';

import type { Notice, NoticeKind } from '../../../core/snapshot/types.ts';
import { Few } from '../../parts/few.tsx';

const WORDS: Record<NoticeKind, string> = {
  development: 'Not a production build',
  unminified: 'Not minified',
  base: 'Addresses that lead nowhere',
  'inline map': 'Maps that travel',
  uncompressed: 'Compression',
  'unnamed file': 'Files nobody names',
  'waiting module': 'Modules that wait',
  'style order': 'Order of styles',
  'missing package': 'Packages that aren’t there',
  outside: 'Outside of the folder',
  'other version': 'Compiled by another version',
  font: 'Fonts of unknown size',
  image: 'Images of unknown size',
};
const ORDER: NoticeKind[] = [
  'missing package',
  'outside',
  'development',
  'base',
  'unminified',
  'inline map',
  'uncompressed',
  'other version',
  'font',
  'image',
  'unnamed file',
  'style order',
  'waiting module',
];
/** They make every figure on this page wrong or misleading. */
const WRONG = new Set<NoticeKind>(['missing package', 'outside', 'development', 'base', 'unminified']);
const FEW = 2;

/** What should be known about an app before its figures are believed; one line per kind. */
export function NoticeList({ notices }: { notices: Notice[] }) {
  const kinds = ORDER.filter((k) => notices.some((n) => n.kind === k));
  if (kinds.length === 0) return null;
  return (
    <section className="mb-5 rounded border border-line bg-band px-3 py-2" aria-label="Worth knowing">
      {kinds.map((kind) => {
        const own = notices.filter((n) => n.kind === kind);
        return (
          <div key={kind} className="grid grid-cols-[170px_minmax(0,1fr)] gap-3 py-0.5">
            <span className={WRONG.has(kind) ? 'font-semibold text-worse' : 'font-medium'}>{WORDS[kind]}</span>
            <span className="min-w-0 [overflow-wrap:anywhere]">
              <Few rows={own} most={FEW} as="span">
                {(n) => (
                  <span key={`${n.path} ${n.message}`} className="block">
                    {n.path ? <span className="break-all">{n.path} </span> : null}
                    <span className="text-soft">{n.message}</span>
                  </span>
                )}
              </Few>
            </span>
          </div>
        );
      })}
    </section>
  );
}
