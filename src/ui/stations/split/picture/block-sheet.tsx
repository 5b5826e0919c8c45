'use client';

import { type Band, type Block, START } from '../../../../core/outline/blocks/types.ts';
import { counted } from '../../../../core/text/counted.ts';
import { firstOf } from '../../../../core/text/first-of.ts';
import { shortName } from '../../../../core/text/short-name.ts';
import type { SplitPicture } from '../../../../worker/views.ts';
import { Few } from '../../../parts/few.tsx';
import { size, time } from '../../../parts/format.ts';
import { TriggerPills } from '../../../parts/trigger-pills.tsx';
import { useLanding } from '../../../state/landing.ts';
import { useTrial } from '../../../state/trial.ts';
import { BeforeAfter } from '../before-after.tsx';
import { usePreview } from '../use-outline.ts';
import type { PlacedBlock } from './layout.ts';
import { fetchedOn, type Move } from './use-moves.ts';

const MOST_KEPT = 4;
const MOST_PLACES = 2;

/** What moving a block would do: what goes with it, what stays and who keeps it, the start before and after, the wait later. */
export function BlockSheet({
  placed,
  picture: {
    picture: { bands },
    waits,
  },
  move,
  onTry,
  onDecide,
  onOpen,
}: {
  placed: PlacedBlock | null;
  picture: SplitPicture;
  move: Move | null;
  onTry: (move: Move) => void;
  onDecide: (move: Move) => void;
  onOpen: (block: Block) => void;
}) {
  const preview = usePreview(move?.decisions ?? null);
  if (!placed) return <ChooseFirst />;
  const { block, from } = placed;
  const isStart = from === START;
  return (
    <>
      <p className="text-[11px] text-soft">{isStart ? `${block.kind} in the start` : `part of ${shortName(from)}`}</p>
      <h2 className="text-[15px] font-semibold break-words">{block.name}</h2>
      <p className="mb-3 font-mono text-[11px] break-all text-soft">{block.of}</p>
      <p className="flex flex-wrap gap-2">
        {move ? (
          <button
            type="button"
            onClick={() => onDecide(move)}
            className="rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink"
          >
            {isStart ? 'Detach it' : `Join ${move.name}`} <kbd className="ml-1 font-mono text-xs opacity-70">d</kbd>
          </button>
        ) : null}
        {block.opens ? (
          <button
            type="button"
            onClick={() => onOpen(block)}
            className="rounded border border-line px-2.5 py-1.5 hover:border-ink"
          >
            Open it <kbd className="ml-1 font-mono text-xs opacity-70">o</kbd>
          </button>
        ) : null}
      </p>
      <p className="mt-3">
        <strong className="font-semibold">{size(block.weight.compressed)}</strong>{' '}
        <span className="text-soft">
          in {counted(block.modules, 'module')} ({size(block.weight.minified)} minified)
        </span>
      </p>
      {move ? null : <p className="mt-2 text-soft">{fixedWords(block)}</p>}
      {move && isStart ? <FetchWhen bands={bands} move={move} onTry={onTry} /> : null}
      {move && isStart ? <Going bands={bands} waits={waits} /> : null}
      {move ? <BeforeAfter preview={preview} /> : null}
    </>
  );
}

/** Why a block can’t be moved as it is. */
function fixedWords({ opens, kind }: Block): string {
  if (kind === 'rest') return 'Each of them is too light to be told apart here.';
  if (opens) return 'A folder isn’t imported as one: open it and move what is in it.';
  return 'The landing begins with it, so it can’t be moved.';
}

/** When what goes is fetched later: looked at as well, before it is decided. */
function FetchWhen({ bands, move, onTry }: { bands: readonly Band[]; move: Move; onTry: (move: Move) => void }) {
  const [begun] = bands.filter((b) => b.isNew);
  if (!begun?.trigger) return null;
  return (
    <section className="mt-4">
      <h3 className="mb-1.5 font-semibold">Fetched later</h3>
      <TriggerPills now={begun.trigger} onPick={(fetch) => onTry(fetchedOn(move, bands, fetch))} />
    </section>
  );
}

/** What is tried: what goes, what stays and by whom it is kept, and what is waited for later. */
function Going({ bands, waits }: { bands: readonly Band[]; waits: SplitPicture['waits'] }) {
  const trial = useTrial();
  const blocked = useLanding((s) => s.blocked);
  if (!trial) return null;
  const places = [
    ...new Set(blocked.map((b) => `${b.reason} (${shortName(b.import.split('::')[0])}, line ${b.line})`)),
  ];
  const start = bands.find((b) => b.id === START);
  const sum = (blocks: Block[]) => blocks.reduce((all, b) => all + b.weight.compressed, 0);
  const goes = sum(start?.blocks.filter((b) => b.to !== START) ?? []);
  const kept = start?.blocks.filter((b) => b.keptBy !== null) ?? [];
  return (
    <>
      {places.length > 0 ? (
        <p className="mt-2 break-words text-worse">Detaching alone breaks it: {firstOf(places, MOST_PLACES)}.</p>
      ) : null}
      <h3 className="mt-4 mb-1 font-semibold">If it goes</h3>
      <dl className="grid grid-cols-[1fr_auto] gap-y-1">
        <dt>leaves the start</dt>
        <dd className="text-right font-semibold text-better">{size(goes)}</dd>
        {kept.length > 0 ? (
          <>
            <dt>needed by it, but stays</dt>
            <dd className="text-right">{size(sum(kept))}</dd>
          </>
        ) : null}
      </dl>
      <ul className="text-[11px] text-soft">
        <Few rows={kept} most={MOST_KEPT} as="li">
          {(b) => (
            <li key={b.id} className="flex justify-between gap-2">
              <span className="truncate" title={`${b.of}, kept by ${b.keptBy}`}>
                {b.name}, kept by {shortName(b.keptBy ?? '')}
              </span>
              <span className="shrink-0">{size(b.weight.compressed)}</span>
            </li>
          )}
        </Few>
      </ul>
      {waits.map((w) => (
        <p key={w.id} className="mt-2">
          Whoever asks for {shortName(w.id)} later waits <strong className="font-semibold">{time(w.wait)}</strong>.
        </p>
      ))}
    </>
  );
}

function ChooseFirst() {
  return (
    <div className="text-soft">
      <h2 className="mb-1 font-semibold text-ink">Choose a block</h2>
      <p>
        It leaves the start as you look: what only it needs goes along, what stays is hatched and says who keeps it, and
        the strip below answers. Nothing is decided until you press d, or drag it over the line.
      </p>
      <ul className="mt-4 grid gap-1.5">
        {[
          ['block-own', 'the app’s own code'],
          ['block-package', 'a package'],
          ['block-later', 'fetched later'],
          ['block-kept', 'stays, though what goes needs it'],
        ].map(([look, words]) => (
          <li key={look} className="flex items-center gap-2">
            <span aria-hidden="true" className={`h-4 w-7 rounded-[3px] ${look}`} />
            {words}
          </li>
        ))}
      </ul>
    </div>
  );
}
