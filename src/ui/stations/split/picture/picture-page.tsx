'use client';

import { useEffect, useRef } from 'react';
import { counted } from '../../../../core/text/counted.ts';
import type { SplitPicture } from '../../../../worker/views.ts';
import { size } from '../../../parts/format.ts';
import { isTakenElsewhere } from '../../../parts/keys.ts';
import { Message } from '../../../parts/message.tsx';
import { Aside, StationGrid } from '../../../parts/station-grid.tsx';
import { useWidth } from '../../../parts/use-width.ts';
import { useWorkbench } from '../../../state/workbench.ts';
import { Bands } from './bands.tsx';
import { BlockSheet } from './block-sheet.tsx';
import { placeBlocks } from './layout.ts';
import { type Moves, moveOf, subjectOfBlock, useMoves } from './use-moves.ts';
import { usePicture } from './use-picture.ts';

const SCROLLBAR = 15;

/** The route as blocks by weight, in what is fetched at the start and later; blocks move between them. */
export function PicturePage() {
  const moves = useMoves();
  const { found, error } = usePicture(moves.open);
  if (error) return <Message title="This route can’t be drawn">{error}</Message>;
  if (!found) return <Message title="Weighing the route">Every module of it, and where it is fetched.</Message>;
  return <Picture found={found} moves={moves} />;
}

function Picture({ found: { picture, waits }, moves }: { found: SplitPicture; moves: Moves }) {
  const route = useWorkbench((s) => s.route);
  const box = useRef<HTMLDivElement>(null);
  // Room for a scroll bar is left in any case, so that nothing changes its width when one appears.
  const width = useWidth(box, 780) - SCROLLBAR;
  const placed = placeBlocks(picture, width);
  const current = placed.blocks.find((b) => subjectOfBlock(b) === moves.chosen) ?? null;
  const move = moves.tried ?? (current && moveOf(current, picture.bands));
  useKeys({
    d: () => moves.decide(move),
    o: () => current?.block.opens && moves.takeApart(current.block),
    Escape: moves.clear,
  });
  return (
    <StationGrid id="picture" aside={300}>
      <div ref={box} className="flex min-h-0 min-w-0 flex-col">
        <div className="px-4 pt-3">
          <h1 className="text-[15px] font-semibold">What {route} fetches at its start, and later</h1>
          <p className="text-soft">
            packages and folders, as wide as they weigh compressed; the live strip adds what a build puts around them
          </p>
          {moves.open.length > 0 ? <TakenApart open={moves.open} setOpen={moves.setOpen} /> : null}
        </div>
        <div className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto">
          <Bands
            placed={placed}
            chosen={current}
            waits={waits}
            moveOf={(b) => moveOf(b, picture.bands)}
            onChoose={(b) => {
              const possible = moveOf(b, picture.bands);
              if (!possible && b.block.opens) moves.takeApart(b.block);
              else moves.choose(b, possible);
            }}
            onTry={moves.look}
            onLetGo={moves.letGo}
            onDecide={moves.decide}
          />
          {picture.lighter.count > 0 ? (
            <p className="px-4 pb-3 text-soft">
              {counted(picture.lighter.count, 'lighter split point')}, {size(picture.lighter.compressed)} together
            </p>
          ) : null}
        </div>
      </div>
      <Aside label="Details">
        <BlockSheet
          key={moves.chosen}
          placed={current}
          picture={{ picture, waits }}
          move={move}
          onTry={moves.look}
          onDecide={moves.decide}
          onOpen={moves.takeApart}
        />
      </Aside>
    </StationGrid>
  );
}

/** Keys of the page, while nothing else has them. */
function useKeys(keys: Record<string, () => void>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTakenElsewhere(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      keys[event.key]?.();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
}

function TakenApart({ open, setOpen }: { open: string[]; setOpen: (open: string[]) => void }) {
  return (
    <p className="mt-1 flex flex-wrap items-center gap-1.5">
      <span className="text-soft">opened</span>
      {open.map((o) => (
        <button
          key={o}
          type="button"
          title="Close it again"
          className="rounded-full border border-line px-2 text-[11px] hover:border-ink"
          onClick={() => setOpen(open.filter((x) => x !== o && !x.startsWith(`${o}/`)))}
        >
          {o.startsWith('rest ') ? 'lighter ones' : o.replace(/^\w+ /, '')} <span aria-hidden="true">×</span>
          <span className="sr-only">close</span>
        </button>
      ))}
    </p>
  );
}
