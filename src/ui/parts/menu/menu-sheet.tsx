'use client';

import { DropdownMenu } from 'radix-ui';
import { Fragment } from 'react';
import { MENU_ITEM } from './look.ts';
import type { RowMenu } from './row-menu.ts';

/** The menu of a row, at its place. */
export function MenuSheet({ menu: { of, groups, x, y, back }, onClose }: { menu: RowMenu; onClose: () => void }) {
  return (
    <DropdownMenu.Root open onOpenChange={(open) => !open && onClose()}>
      <DropdownMenu.Trigger asChild>
        <span aria-hidden="true" className="fixed size-0" style={{ left: x, top: y }} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={1}
          collisionPadding={8}
          aria-label={`What can be done with ${of}`}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (back instanceof HTMLElement) back.focus();
          }}
          className="z-50 max-h-[70vh] max-w-96 min-w-60 overflow-y-auto rounded border border-line bg-sheet p-1 shadow-lg"
        >
          <DropdownMenu.Label className="truncate px-2.5 pt-1 pb-1 text-[11px] text-soft">{of}</DropdownMenu.Label>
          {groups
            .filter((group) => group.length > 0)
            .map((group, at) => (
              <Fragment key={group[0].words}>
                {at > 0 ? <DropdownMenu.Separator className="my-1 h-px bg-line" /> : null}
                {group.map(({ words, note, run }) => (
                  <DropdownMenu.Item key={words} className={MENU_ITEM} onSelect={run}>
                    <span className="min-w-0 truncate">{words}</span>
                    {note ? <span className="font-mono text-[11px] text-soft">{note}</span> : null}
                  </DropdownMenu.Item>
                ))}
              </Fragment>
            ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
