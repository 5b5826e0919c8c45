'use client';

import { Command as Menu } from 'cmdk';
import { useState } from 'react';
import { type Command, commands } from './commands.ts';

/** Everything that can be done from anywhere, found by typing. */
export function CommandSheet({ onClose }: { onClose: () => void }) {
  const [all] = useState(commands);
  const groups = new Map<string, Command[]>();
  for (const command of all) groups.set(command.group, [...(groups.get(command.group) ?? []), command]);
  return (
    <Menu.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="What to do"
      overlayClassName="fixed inset-0 z-40 bg-black/25"
      contentClassName="fixed top-20 left-1/2 z-50 w-[520px] -translate-x-1/2 rounded border border-line bg-sheet shadow-xl"
    >
      <Menu.Input
        placeholder="a station, route, plan, link, finding …"
        className="w-full rounded-t border-b border-line bg-transparent px-4 py-2.5 outline-none"
      />
      <Menu.Empty className="px-4 py-3 text-soft">Nothing goes by that name.</Menu.Empty>
      <Menu.List label="Commands" className="max-h-[420px] overflow-y-auto px-2 py-2">
        {[...groups].map(([group, own]) => (
          <Menu.Group
            key={group}
            heading={group}
            className="[&>[cmdk-group-heading]]:px-2 [&>[cmdk-group-heading]]:pt-2 [&>[cmdk-group-heading]]:text-[11px] [&>[cmdk-group-heading]]:text-soft"
          >
            {own.map(({ words, note, run }) => (
              <Menu.Item
                key={words}
                value={`${group} ${words}`}
                onSelect={() => {
                  onClose();
                  run();
                }}
                className="flex justify-between gap-4 rounded-sm px-2 py-1 data-[selected=true]:bg-mark"
              >
                <span className="min-w-0 truncate">{words}</span>
                {note ? <span className="shrink-0 text-soft">{note}</span> : null}
              </Menu.Item>
            ))}
          </Menu.Group>
        ))}
      </Menu.List>
    </Menu.Dialog>
  );
}
