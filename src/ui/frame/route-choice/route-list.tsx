'use client';

import { Command as Menu } from 'cmdk';
import { useMemo } from 'react';
import { landingShares } from '../../../core/snapshot/landing-shares.ts';
import { counted } from '../../../core/text/counted.ts';
import { percent } from '../../parts/format.ts';
import { useWorkbench } from '../../state/workbench.ts';

/** All routes with their share of landings, in the order of the app; what is typed narrows them down. */
export function RouteList({ onDone }: { onDone: () => void }) {
  const routes = useWorkbench((s) => s.app?.routes);
  const route = useWorkbench((s) => s.route);
  const choose = useWorkbench((s) => s.choose);
  const shares = useMemo(() => landingShares(routes ?? []), [routes]);
  // Where nobody has said how often visits begin where, equal shares would only look like knowledge.
  const known = routes?.some((r) => r.landings !== undefined) ?? false;
  return (
    <Menu
      label="Routes"
      defaultValue={route}
      filter={(value, search) => (value.toLowerCase().includes(search.toLowerCase()) ? 1 : 0)}
    >
      <Menu.Input
        placeholder={`find among ${counted(routes?.length ?? 0, 'route')}`}
        className="w-full rounded-t border-b border-line bg-transparent px-3 py-2 outline-none"
      />
      <Menu.Empty className="px-3 py-2 text-soft">No route has this in its pattern.</Menu.Empty>
      <Menu.List label="Routes of the app" className="max-h-[60vh] overflow-y-auto p-1">
        {(routes ?? []).map(({ pattern, rendering }) => (
          <Menu.Item
            key={pattern}
            value={pattern}
            onSelect={() => {
              onDone();
              choose({ route: pattern, selection: null });
            }}
            className={`flex cursor-pointer items-baseline justify-between gap-6 rounded px-2.5 py-1.5 data-[selected=true]:bg-mark ${pattern === route ? 'font-medium' : ''}`}
          >
            <span className="min-w-0 break-all">{pattern}</span>
            <span className="shrink-0 text-[11px] text-soft">
              {[
                ...(rendering === 'server' ? ['server-drawn'] : []),
                ...(known ? [`${percent(shares.get(pattern) ?? 0)} of landings`] : []),
              ].join(', ')}
            </span>
          </Menu.Item>
        ))}
      </Menu.List>
    </Menu>
  );
}
