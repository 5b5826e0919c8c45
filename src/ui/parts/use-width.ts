'use client';

import { type RefObject, useEffect, useState } from 'react';

/** Width of an element, kept up to date. */
export function useWidth(ref: RefObject<HTMLElement | null>, first: number): number {
  const [width, setWidth] = useState(first);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => setWidth(Math.max(200, Math.floor(entry.contentRect.width))));
    watch.observe(element);
    return () => watch.disconnect();
  }, [ref]);
  return width;
}
