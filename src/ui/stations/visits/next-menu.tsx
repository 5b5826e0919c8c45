'use client';

import { DropdownMenu } from 'radix-ui';
import type { Visit, VisitStep } from '../../../core/visits/types.ts';
import type { NextStep } from '../../../worker/services/visits.ts';
import { MENU_ITEM } from '../../parts/menu/look.ts';
import { addStep } from '../../state/visit.ts';
import { nextWords } from './words.ts';

const DAY_MS = 86_400_000;

/** What the person does next: acts and moves that are possible where the visit ends, and what happens to them. */
export function NextMenu({ visit, next }: { visit: Visit; next: NextStep[] }) {
  const acts = next.filter((n) => n.does !== 'move');
  const moves = next.filter((n) => n.does === 'move');
  const add = (step: VisitStep) => addStep(visit, step);
  const take = (n: NextStep): void =>
    n.does === 'move'
      ? add({ does: 'move', to: n.to, by: n.by, dwellMs: n.dwellMs, leadMs: n.leadMs, holds: [] })
      : add({ does: n.does, part: n.part, dwellMs: n.dwellMs, leadMs: n.leadMs });
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="rounded border border-line px-2.5 py-1 hover:border-ink">
        and then …
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={2}
          className="z-50 max-h-[60vh] min-w-64 overflow-y-auto rounded border border-line bg-sheet p-1 shadow-lg"
        >
          {acts.length > 0 ? <Label>on this screen</Label> : null}
          {acts.map((n) => (
            <DropdownMenu.Item key={nextWords(n)} className={MENU_ITEM} onSelect={() => take(n)}>
              {nextWords(n)}
            </DropdownMenu.Item>
          ))}
          <Label>to another screen</Label>
          {moves.map((n) => (
            <DropdownMenu.Item key={nextWords(n)} className={MENU_ITEM} onSelect={() => take(n)}>
              {nextWords(n)}
              <span className="text-[11px] text-soft">{n.does === 'move' && n.linked ? 'linked' : ''}</span>
            </DropdownMenu.Item>
          ))}
          <Label>what happens meanwhile</Label>
          <DropdownMenu.Item
            className={MENU_ITEM}
            onSelect={() => add({ does: 'resize', width: 1280, height: 800, dwellMs: 1000 })}
          >
            the screen becomes wide
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => add({ does: 'deploy', dwellMs: 1000 })}>
            the app is deployed again
          </DropdownMenu.Item>
          {[false, true].map((deployed) => (
            <DropdownMenu.Item
              key={String(deployed)}
              className={MENU_ITEM}
              onSelect={() =>
                add({ does: 'return', to: visit.landing, awayMs: DAY_MS, deployed, dwellMs: 1000, holds: [] })
              }
            >
              comes back after a day{deployed ? ' and a deploy' : ''}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Label({ children }: { children: string }) {
  return <DropdownMenu.Label className="px-2.5 pt-1.5 pb-0.5 text-[11px] text-soft">{children}</DropdownMenu.Label>;
}
