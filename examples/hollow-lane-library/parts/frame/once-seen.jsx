"use client";
import { useEffect, useRef, useState } from '#kit';

export function OnceSeen({ children, tall }) {
  const [seen, setSeen] = useState(false);
  const box = useRef(null);
  useEffect(() => {
    const watcher = new IntersectionObserver(([entry]) => entry.isIntersecting && setSeen(true));
    if (box.current) watcher.observe(box.current);
  });
  return <div ref={box} style={{ minHeight: tall ? 640 : 320 }}>{seen ? children : null}</div>;
}
