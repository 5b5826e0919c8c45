import { amountWords } from '../limits/words.ts';
import { plain, type TextTable, tablesMarkdown } from '../text/table-text.ts';
import type { Reconciliation } from './types.ts';

/** Promised beside delivered as tables. */
export function reconcileTables({ routes, decisions, hints }: Reconciliation): TextTable[] {
  const kB = (bytes: number) => amountWords('bytes', bytes);
  return [
    {
      title: 'Starts: promised and delivered',
      head: ['route', 'promised', 'delivered', 'not promised in it'],
      rows: routes.map(({ pattern, promised, delivered, extra, more }) => [
        pattern,
        `${kB(promised.bytes)} in ${promised.files} files`,
        delivered ? `${kB(delivered.bytes)} in ${delivered.files.length} files` : 'its page is in no file',
        extra.length === 0
          ? ''
          : `${extra.map((e) => `${e.path} (${kB(e.bytes)})`).join(', ')}${more > 0 ? ` and ${more} more` : ''}`,
      ]),
    },
    {
      title: 'Decisions',
      head: ['decision', 'state', 'why'],
      rows: decisions.map((d) => [d.words, d.state, d.why]),
    },
    {
      title: 'Hints',
      head: ['hint', 'routes', 'state', 'why'],
      rows: hints.map((h) => [h.words, h.routes.join(', '), h.state, h.why]),
    },
  ].filter((t) => t.rows.length > 0);
}

/** What a build delivered of a plan, as Markdown for a review. */
export function reconcileMarkdown(found: Reconciliation): string {
  const missed = [...found.decisions, ...found.hints].filter((d) => d.state === 'not delivered');
  const head = found.ok
    ? '**The build delivers what the plan promised**, as far as its files tell.'
    : `**The build doesn’t deliver all of the plan**: ${missed.map((m) => plain(m.words)).join('; ') || 'starts hold more than promised'}.`;
  return `${head}\n\n${tablesMarkdown(reconcileTables(found))}`;
}
