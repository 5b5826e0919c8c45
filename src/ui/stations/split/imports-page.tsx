'use client';

import { useEffect, useRef, useState } from 'react';
import { isTakenElsewhere } from '../../parts/keys.ts';
import { Message } from '../../parts/message.tsx';
import { Aside, StationGrid } from '../../parts/station-grid.tsx';
import { useWorkbench } from '../../state/workbench.ts';
import { ImportDetails } from './import-details.tsx';
import { ImportsHead } from './imports-head.tsx';
import { lineMenu } from './line-menu.ts';
import { SplitList } from './split-list.tsx';
import { toggleImport, togglePreload } from './toggles.ts';
import { type ImportChoice, useImportChoice } from './use-import-choice.ts';
import { useOutline } from './use-outline.ts';

/** What a route, or a split point within it, pulls in: imports and split points, to be detached, joined and hinted. */
export function ImportsPage() {
  const route = useWorkbench((s) => s.route);
  const [inner, setInner] = useState<{ of: string; on: string } | null>(null);
  const within = inner?.on === route ? inner.of : null;
  const { found: outline, error } = useOutline(within);
  const decide = useWorkbench((s) => s.decide);
  const choice = useImportChoice(outline, within);
  const search = useRef<HTMLInputElement>(null);
  const list = useRef<HTMLDivElement>(null);

  const enter = (of: string) => {
    choice.clear();
    setInner({ of, on: route });
  };
  const back = () => setInner(null);
  const detachMany = () => {
    if (!choice.many) return;
    decide(choice.many.decisions, choice.many.words);
    if (choice.many.marked) choice.clear();
  };
  useKeys({ choice, within, route, onSearch: () => search.current?.focus(), back, detachMany });

  if (error) return <Message title="This route can’t be outlined">{error}</Message>;
  return (
    <StationGrid id="imports" aside={320}>
      <div className="flex min-h-0 min-w-0 flex-col">
        <ImportsHead
          route={route}
          within={within}
          outline={outline}
          filter={choice.filter}
          search={search}
          onFilter={choice.setFilter}
          onList={() => {
            const first = choice.lines.find((line) => line.kind !== 'heading');
            if (first && !choice.chosen) choice.pick(first);
            list.current?.focus();
          }}
          onBack={back}
        />
        <SplitList
          ref={list}
          lines={choice.lines}
          chosen={choice.chosen?.id ?? null}
          marks={choice.marks}
          loading={!outline}
          found={choice.filter.text !== ''}
          onChoose={choice.pick}
          onMark={choice.mark}
          onAct={(line) => {
            if (line.kind === 'group') choice.fold(line, !line.open);
            else if (line.kind === 'split') enter(line.row.target);
            else toggleImport(line);
          }}
          onFold={choice.fold}
          menuOf={(line) => lineMenu(line, { choice, route, onEnter: enter })}
        />
      </div>
      <Aside label="Details">
        <ImportDetails choice={choice} outline={outline} within={within} onDetachMany={detachMany} onEnter={enter} />
      </Aside>
    </StationGrid>
  );
}

/** Keys of the page, beside those of the list. */
function useKeys({
  choice,
  within,
  route,
  onSearch,
  back,
  detachMany,
}: {
  choice: ImportChoice;
  within: string | null;
  route: string;
  onSearch: () => void;
  back: () => void;
  detachMany: () => void;
}): void {
  const { chosen, many, marks } = choice;
  const decisions = many?.decisions.length ?? 0;
  /** `d` detaches or joins what is chosen, `p` preloads it or takes that back. */
  const act = (key: 'd' | 'p') => {
    if (!chosen && decisions === 0) return;
    if (key === 'd' && decisions > 0) detachMany();
    else if (!chosen || chosen.kind === 'group') return;
    else if (key === 'd') toggleImport(chosen);
    else if (chosen.kind === 'split') togglePreload(chosen.row, route);
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTakenElsewhere(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === '/') {
        event.preventDefault();
        onSearch();
      } else if (event.key === 'Escape') {
        if (marks.size > 0) choice.clear();
        else if (within) back();
      } else if (event.key === 'd' || event.key === 'p') act(event.key);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
}
