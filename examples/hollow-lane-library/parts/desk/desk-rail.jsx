"use client";
import { usePanel } from './use-panel.js';

export function DeskRail() {
  const { show } = usePanel();
  return (
    <nav>
      <a href="/desk">Issue</a>
      <a href="/desk/returns">Returns</a>
      <button type="button" onClick={() => show('overdue')}>Overdue</button>
    </nav>
  );
}
