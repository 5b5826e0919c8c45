'use client';

import { createContext, type KeyboardEvent, type ReactNode, useContext, useMemo, useState } from 'react';
import { useDragged } from './dragged.ts';
import { keepInMap, keptMap } from './kept-map.ts';

/** How narrow and how wide what stands beside a station can be made, and by how much a key moves its border, in px. */
const LEAST = 220;
const MOST = 640;
const STEP = 16;
const KEY = 'yokeline widths';

interface Width {
  width: number;
  /** `done`: the border rests there, so that it is remembered. */
  setWidth: (width: number, done: boolean) => void;
  usual: number;
}

const AsideWidth = createContext<Width | null>(null);

/**
 * A station's page with what is told of the chosen thing beside it (`Aside`). The border between them can be moved by pointer and keys, and is
 * remembered for each page. `aside`: its usual width in px.
 */
export function StationGrid({
  id,
  aside,
  busy,
  className = '',
  children,
}: {
  id: string;
  aside: number;
  busy?: boolean;
  className?: string;
  children: ReactNode;
}) {
  const [width, setWidth] = useState(() => keptWidth(id) ?? aside);
  const value = useMemo<Width>(
    () => ({
      width,
      usual: aside,
      setWidth: (next, done) => {
        const kept = Math.round(Math.max(LEAST, Math.min(MOST, next)));
        setWidth(kept);
        if (done) keepInMap(KEY, id, kept === aside ? null : kept);
      },
    }),
    [id, aside, width],
  );
  return (
    <AsideWidth value={value}>
      <div
        aria-busy={busy}
        style={{ '--aside': `${width}px` } as React.CSSProperties}
        className={`station-grid grid h-full min-h-0 grid-cols-[minmax(0,1fr)_var(--aside)] ${className}`}
      >
        {children}
      </div>
    </AsideWidth>
  );
}

/** What stands beside a page. */
export function Aside({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="relative flex min-h-0 min-w-0 flex-col border-l border-line">
      <Border />
      <aside aria-label={label} className="min-h-0 flex-1 overflow-y-auto px-4 py-4">
        {children}
      </aside>
    </div>
  );
}

/** The border of what stands beside: dragged, moved by arrows, set back by a double click or Enter. */
function Border() {
  const { width, setWidth, usual } = useContext(AsideWidth)!;
  const dragging = useDragged<HTMLDivElement>({
    begin: () => width,
    grows: -1,
    moved: (next) => setWidth(next, false),
    rested: () => setWidth(width, true),
    reset: () => setWidth(usual, true),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const to = { ArrowLeft: width + STEP, ArrowRight: width - STEP, Home: MOST, End: LEAST, Enter: usual }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    setWidth(to, true);
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a line between two parts that is moved is no thematic break
    <div
      role="separator"
      aria-label="Width of this column"
      aria-orientation="vertical"
      aria-valuenow={width}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      tabIndex={0}
      title="Drag to make it wider or narrower; a double click sets it back"
      {...dragging}
      onKeyDown={onKeyDown}
      className="aside-border absolute inset-y-0 -left-1 z-10 w-2 cursor-col-resize touch-none outline-none hover:bg-mark focus-visible:bg-ink"
    />
  );
}

/** The width that a page was given before; null where it has its usual one. */
function keptWidth(id: string): number | null {
  const width = keptMap(KEY)[id];
  return typeof width === 'number' && width >= LEAST && width <= MOST ? width : null;
}
