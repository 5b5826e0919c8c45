'use client';

import { type PointerEvent, useRef } from 'react';

/**
 * Has an edge be dragged sideways. `begin`: the width as the pointer takes it; `grows`: 1 where it grows to the right, −1 where to the left; `moved`: the width
 * where the pointer is now; `rested`: the pointer let go; `reset`: it is set back, by a double click.
 */
export function useDragged<E extends Element>({
  begin,
  grows,
  moved,
  rested,
  reset,
}: {
  begin: (edge: E) => number;
  grows: 1 | -1;
  moved: (width: number) => void;
  rested: () => void;
  reset: () => void;
}) {
  const from = useRef<{ x: number; width: number } | null>(null);
  const letGo = () => {
    if (from.current) rested();
    from.current = null;
  };
  return {
    onPointerDown(event: PointerEvent<E>) {
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = { x: event.clientX, width: begin(event.currentTarget) };
    },
    onPointerMove(event: PointerEvent<E>) {
      if (from.current) moved(from.current.width + grows * (event.clientX - from.current.x));
    },
    onPointerUp: letGo,
    onPointerCancel: letGo,
    onDoubleClick: reset,
  };
}
