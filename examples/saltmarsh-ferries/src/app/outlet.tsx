import type { RouteEntry } from '@saltmarsh/wayfinder';
import { type Component, type Node, useCell } from '@saltmarsh/view';
import { NotFound } from './not-found';

type View = Component<{ children?: unknown }>;
type Loader = () => Promise<{ default: View }>;

/** Draws a chain of layouts around a page; what is deferred appears when its code is there. */
export function Outlet({ chain }: { chain: RouteEntry[] }) {
  const [asked] = useCell({ key: '' });
  const [views, setViews] = useCell<View[]>([]);
  if (chain.length === 0) return <NotFound />;
  const key = chain.map((entry) => entry.path).join('/');
  if (asked.key !== key) {
    asked.key = key;
    void Promise.all(chain.map((entry) => loaded((entry.layout ?? entry.page) as View | Loader))).then(setViews);
  }
  return <div class="outlet">{views.reduceRight<Node>((inner, View) => <View>{inner}</View>, null)}</div>;
}

/** A component, be it there or deferred: what loads one is an arrow function, as the table of routes writes it. */
async function loaded(view: View | Loader): Promise<View> {
  return view.prototype ? (view as View) : (await (view as Loader)()).default;
}
