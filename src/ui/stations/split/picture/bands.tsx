'use client';

import { useRef, useState } from 'react';
import { START } from '../../../../core/outline/blocks/types.ts';
import { shortName } from '../../../../core/text/short-name.ts';
import { triggerWords } from '../../../../core/vocabulary/triggers.ts';
import type { SplitPicture } from '../../../../worker/views.ts';
import { size, time } from '../../../parts/format.ts';
import { UNTIL } from '../hold-section.tsx';
import { HEADS, neighbour, type Placed, type PlacedBand, type PlacedBlock } from './layout.ts';
import type { Move } from './use-moves.ts';

interface Acts {
  chosen: PlacedBlock | null;
  moveOf: (block: PlacedBlock) => Move | null;
  onChoose: (block: PlacedBlock) => void;
  onTry: (move: Move) => void;
  onLetGo: () => void;
  onDecide: (move: Move) => void;
}

/** Bands with their blocks. A block is tried by a click, and moved by dragging it over the line between the start and later. */
export function Bands({ placed, waits, ...acts }: { placed: Placed; waits: SplitPicture['waits'] } & Acts) {
  const box = useRef<HTMLElement>(null);
  const [dragged, setDragged] = useState<PlacedBlock | null>(null);
  const focusOn = (block: PlacedBlock | null) =>
    block && box.current?.querySelector<HTMLElement>(`[data-block="${CSS.escape(block.block.id)}"]`)?.focus();
  /** Whether the pointer is on the side of the line that the dragged block isn’t on. */
  const isAcross = (event: React.DragEvent) => {
    if (!dragged) return false;
    const onStart = event.clientY - event.currentTarget.getBoundingClientRect().top < placed.shore;
    return onStart !== (dragged.from === START);
  };
  const soon = new Set(placed.bands.filter((b) => b.band.onLanding).map((b) => b.band.id));
  const lit = (onStart: boolean) => (dragged && (dragged.from === START) !== onStart ? 'bg-mark' : '');
  return (
    <section
      ref={box}
      aria-label="Blocks of the start and of what comes later"
      className="relative min-h-full"
      style={{ height: placed.height }}
      onDragOver={(event) => {
        if (isAcross(event)) event.preventDefault();
      }}
      onDrop={(event) => {
        event.preventDefault();
        const move = dragged && acts.moveOf(dragged);
        setDragged(null);
        if (move && isAcross(event)) acts.onDecide(move);
      }}
    >
      <div className={`absolute inset-x-0 top-0 ${lit(true)}`} style={{ height: placed.shore }} data-zone="start" />
      <div
        className={`absolute inset-x-0 bottom-0 bg-band ${lit(false)}`}
        style={{ top: placed.shore }}
        data-zone="later"
      >
        <p className="pointer-events-none border-t-2 border-ink px-4 pt-1 text-[11px] text-soft">
          later: drag a block below this line, or choose it and press d
        </p>
      </div>
      {placed.bands.map((band) => (
        <BandHead key={band.band.id} placed={band} wait={waits.find((w) => w.id === band.band.id) ?? null} />
      ))}
      {withKeys(placed.blocks).map(({ key, placed: b }) => (
        <BlockButton
          key={key}
          placed={b}
          onLanding={soon.has(b.at)}
          first={b === placed.blocks[0]}
          chosen={b === acts.chosen}
          draggable={acts.moveOf(b) !== null}
          onChoose={() => acts.onChoose(b)}
          onArrow={(arrow) => focusOn(neighbour(placed.blocks, b.block.id, arrow))}
          onDrag={() => {
            setDragged(b);
            const move = acts.moveOf(b);
            // The drawing moves only once the drag has begun: the browser takes its picture of the block first.
            if (move) setTimeout(() => acts.onTry(move));
          }}
          onDragEnd={() => {
            if (dragged) acts.onLetGo();
            setDragged(null);
          }}
        />
      ))}
    </section>
  );
}

/** A name that a piece keeps while it moves: what goes is what was there; what stays of it appears beside. */
function withKeys(blocks: readonly PlacedBlock[]): { key: string; placed: PlacedBlock }[] {
  const of = (b: PlacedBlock) => `${b.from}\n${b.block.kind}\n${b.block.of}`;
  const going = new Set(blocks.filter((b) => b.at !== b.from).map(of));
  const staying = new Set<string>();
  return blocks.map((placed) => {
    const key = of(placed);
    if (placed.at !== placed.from) return { key, placed };
    const isSecond = going.has(key) || staying.has(key);
    staying.add(key);
    return { key: isSecond ? `${key}\n${placed.block.keptBy === null ? 'stays' : 'is kept'}` : key, placed };
  });
}

function BandHead({
  placed: { band, y, height, end, was, bytes },
  wait,
}: {
  placed: PlacedBand;
  wait: SplitPicture['waits'][number] | null;
}) {
  const isStart = band.id === START;
  return (
    <>
      <div
        className="pointer-events-none absolute left-4 overflow-hidden"
        style={{ top: y, height, width: HEADS - 28 }}
      >
        <p className="flex items-baseline justify-between gap-2">
          <span className={`truncate ${isStart || band.isNew ? 'font-semibold' : ''}`} title={band.id}>
            {band.name}
          </span>
          <span className={isStart ? 'font-semibold' : 'text-soft'}>{size(bytes)}</span>
        </p>
        <p className="truncate text-[11px] text-soft">
          {isStart
            ? 'before anything shows'
            : wait
              ? `then waits ${time(wait.wait)} ${UNTIL[wait.until]}`
              : band.trigger
                ? triggerWords(band.trigger)
                : ''}
        </p>
      </div>
      {was > end + 2 ? (
        <div
          className="pointer-events-none absolute border border-dashed border-faint text-center text-[11px] text-soft"
          style={{ left: end, top: y, width: was - end - 2, height }}
        >
          <span className="sr-only">left by what goes</span>
        </div>
      ) : null}
    </>
  );
}

/** Blocks narrower than these have no room for a name, or for a second line. */
const NAMED_FROM = 40;
const TOLD_FROM = 88;

function BlockButton({
  placed: { block, from, at, x, y, width, height },
  onLanding,
  first,
  chosen,
  draggable,
  onChoose,
  onArrow,
  onDrag,
  onDragEnd,
}: {
  placed: PlacedBlock;
  /** The first screen waits for what it is drawn in. */
  onLanding: boolean;
  first: boolean;
  chosen: boolean;
  draggable: boolean;
  onChoose: () => void;
  onArrow: (key: string) => void;
  onDrag: () => void;
  onDragEnd: () => void;
}) {
  const isStart = at === START;
  const kept = block.keptBy === null ? null : `kept by ${shortName(block.keptBy)}`;
  const look = kept
    ? 'block-kept'
    : !onLanding
      ? 'block-later'
      : block.kind === 'package'
        ? 'block-package'
        : 'block-own';
  return (
    <button
      type="button"
      data-block={block.id}
      data-at={at}
      tabIndex={first || chosen ? 0 : -1}
      draggable={draggable}
      aria-pressed={chosen}
      title={`${block.of || block.name}: ${size(block.weight.compressed)} in ${block.modules} ${block.modules === 1 ? 'module' : 'modules'}${kept ? `; stays, ${kept}` : ''}`}
      onClick={onChoose}
      onDragStart={(event) => {
        event.dataTransfer.setData('text/plain', block.name);
        event.dataTransfer.effectAllowed = 'move';
        onDrag();
      }}
      onDragEnd={onDragEnd}
      onKeyDown={(event) => {
        if (!event.key.startsWith('Arrow')) return;
        event.preventDefault();
        onArrow(event.key);
      }}
      className={`block-piece absolute flex flex-col overflow-hidden rounded-[3px] text-left text-xs leading-tight ${isStart ? 'pt-1' : 'justify-center'} ${width >= NAMED_FROM ? 'px-1' : ''} ${look} ${chosen ? 'outline-2 outline-offset-1 outline-ink' : ''}`}
      style={{ left: x, top: y, width, height }}
    >
      <Words block={block} onStart={isStart} way={wayWords(from, at)} kept={kept} width={width} />
    </button>
  );
}

/** Name, weight and keeper as far as there is room; the rest for whoever hears it. */
function Words({
  block: { name, kind, of, weight },
  onStart,
  way,
  kept,
  width,
}: {
  block: PlacedBlock['block'];
  onStart: boolean;
  way: string;
  kept: string | null;
  width: number;
}) {
  const seen = (from: number, more = '') => (width >= from ? `w-full truncate ${more}` : 'sr-only');
  return (
    <>
      <span className={seen(NAMED_FROM)}>{name.replace(/^@[^/]+\//, '')} </span>
      <span className={onStart ? seen(NAMED_FROM, 'text-[11px]') : 'sr-only'}>{size(weight.compressed)}</span>
      {kept ? <span className={onStart ? seen(TOLD_FROM, 'text-[11px]') : 'sr-only'}>{kept}</span> : null}
      <span className="sr-only">
        , {kind === 'rest' ? 'blocks' : `${kind} ${of}`}, {way}
      </span>
    </>
  );
}

function wayWords(from: string, at: string): string {
  if (from === at) return at === START ? 'in the start' : `with ${shortName(at)}`;
  return at === START
    ? 'comes into the start'
    : from === START
      ? `leaves the start, with ${shortName(at)}`
      : `with ${shortName(at)} then`;
}
