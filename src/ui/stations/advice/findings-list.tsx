'use client';

import type { Finding } from '../../../core/advise/types.ts';
import { time } from '../../parts/format.ts';
import { Marked } from '../../parts/marked.tsx';
import { turnedByClick, turnedByStep } from '../../parts/marks.ts';
import { copying, openRowMenu, type RowMenu } from '../../parts/menu/row-menu.ts';
import { seenWords } from '../../parts/seen-words.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { savedBy } from './saved-by.ts';

const BAR = 110;

/** Findings, the best first, to choose one of them or several together. */
export function FindingsList({
  findings,
  chosen,
  marks,
  onChoose,
  onMark,
}: {
  findings: readonly Finding[];
  chosen: string | null;
  /** Ids of those that are chosen together. */
  marks: ReadonlySet<string>;
  onChoose: (id: string) => void;
  /** Takes findings, by their ids, to those chosen together, or out of them. */
  onMark: (ids: readonly string[]) => void;
}) {
  const ids = findings.map((f) => f.id);
  const most = Math.max(1, ...findings.map(savedBy));
  const at = ids.indexOf(chosen ?? '');
  const many = ids.some((id) => marks.has(id));
  return (
    <ol
      aria-label="Findings"
      onKeyDown={(event) => {
        const buttons = [...event.currentTarget.querySelectorAll<HTMLButtonElement>('li > button')];
        const here = buttons.indexOf(document.activeElement as HTMLButtonElement);
        const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
        if (event.key === ' ' && here >= 0) {
          onMark([ids[here]]);
          onChoose(ids[here]);
        } else if (by !== 0) {
          const next = Math.max(0, Math.min(findings.length - 1, at + by));
          if (event.shiftKey) onMark(turnedByStep(ids, marks, at, next));
          onChoose(ids[next]);
          buttons[next]?.focus();
        } else return;
        event.preventDefault();
      }}
    >
      {findings.map((f, index) => (
        <li key={f.id} className="border-t border-line">
          <button
            type="button"
            aria-current={f.id === chosen ? 'true' : undefined}
            onClick={(event) => {
              onMark(turnedByClick(ids, marks, at, index, event));
              onChoose(f.id);
            }}
            onContextMenu={(event) => {
              onChoose(f.id);
              openRowMenu(event, event.currentTarget, {
                of: f.what,
                groups: findingGroups(f, marks.has(f.id), () => onMark([f.id])),
              });
            }}
            className={`grid w-full ${many ? 'grid-cols-[22px_minmax(0,1fr)_250px]' : 'grid-cols-[minmax(0,1fr)_250px]'} items-center gap-4 py-1.5 text-left ${f.id === chosen ? 'bg-mark' : 'hover:bg-band'}`}
          >
            {marks.has(f.id) ? <Marked /> : many ? <span aria-hidden="true" /> : null}
            <span className="min-w-0 pl-1">
              <span className={`block truncate ${f.id === chosen ? 'font-semibold' : ''}`} title={f.what}>
                {f.what}
                {marks.has(f.id) ? <span className="sr-only">, chosen with others</span> : null}
              </span>
              <span className="block truncate text-[11px] text-soft">{f.remedy.words}</span>
            </span>
            {f.seen ? (
              <span className="text-soft">{seenWords(f.effect.seen)}</span>
            ) : (
              <span className="flex items-center gap-2">
                <span
                  aria-hidden="true"
                  className="h-2 shrink-0 bg-[var(--better)]"
                  style={{ width: Math.max(1, (savedBy(f) / most) * BAR) }}
                />
                <span className="whitespace-nowrap">
                  ▾ {time(savedBy(f))}
                  <span className="block text-[11px] text-soft">{sumWords(f, f === findings[0])}</span>
                </span>
              </span>
            )}
          </button>
        </li>
      ))}
    </ol>
  );
}

/** What can be done with a finding: what its sheet offers, and what can be copied of it. */
function findingGroups(
  { what, why, remedy, evidence, id, cautions }: Finding,
  isMarked: boolean,
  mark: () => void,
): RowMenu['groups'] {
  const { decide, take } = useWorkbench.getState();
  const [first] = evidence;
  return [
    [
      {
        words: cautions.length === 0 ? 'Apply' : 'Apply to the plan anyway',
        run: () => take(remedy),
      },
      { words: 'Dismiss', run: () => decide([{ kind: 'put aside', finding: id, reason: '' }], `dismiss: ${what}`) },
      {
        words: isMarked ? 'Leave it out of those chosen' : 'Choose it together with others',
        note: 'Space',
        run: mark,
      },
    ],
    [
      copying('it as text', `${what}. ${why} ${remedy.words}.`),
      ...(first ? [copying('where it is in the code', `${first.from}:${first.line}`)] : []),
    ],
  ];
}

/** What stands under a finding's figure: what it comes to with others, or why it doesn't add up with them. */
function sumWords({ basis, cautions, together }: Finding, isFirst: boolean): string {
  if (cautions.length > 0) return 'needs a change by hand';
  if (basis.on === 'a link') return `on ${basis.link}`;
  return together === null || isFirst ? ' ' : `${time(-together)} with those above`;
}
