import type { RouteEntry } from '@saltmarsh/wayfinder';
import { type Component, useCell } from '@saltmarsh/view';
import { NotFound } from './not-found';

/** Draws a chain of layouts around a page; what is deferred appears when its code is there. */
export function Outlet({ chain }: { chain: RouteEntry[] }) {
  const [ready, setReady] = useCell<Component[]>([]);
  if (chain.length === 0) return <NotFound />;
  void Promise.all(chain.map(async (entry) => {
    const view = (entry.layout ?? entry.page) as () => Promise<{ default: Component }>;
    const made = await view();
    return 'default' in made ? made.default : (view as unknown as Component);
  })).then(setReady);
  return <div class="outlet">{ready.map((View) => <View />)}</div>;
}
