import type { StationId } from '../../core/vocabulary/stations.ts';
import { Message } from '../parts/message.tsx';
import { goTo } from '../state/stations.ts';
import { STATION_VIEWS } from './station-views.tsx';

/** The station that is looked at, or what the app lacks for it and what can be done about that. */
export function Station({
  at,
  routes,
  modules,
  splittable,
}: {
  at: StationId;
  routes: number;
  modules: number;
  splittable: boolean;
}) {
  const { needs, View } = STATION_VIEWS[at];
  if (needs !== 'nothing' && routes === 0)
    return (
      <Message title="No routes yet">
        <p>{modules} modules were read, but no route was found in the code.</p>
        <button type="button" className="mt-3 text-ink underline" onClick={() => goTo('inventory')}>
          Name a route by hand
        </button>
      </Message>
    );
  if (needs === 'routes and modules' && !splittable)
    return (
      <Message title="There is nothing to cut here">
        <p>
          This output’s source maps don’t hold the sources, so Yokeline knows its files but not what imports what inside
          of them. Build it with the sources in its maps, or read the app’s own folder.
        </p>
        <button type="button" className="mt-3 text-ink underline" onClick={() => goTo('inventory')}>
          See what is in the files
        </button>
      </Message>
    );
  return <View />;
}
