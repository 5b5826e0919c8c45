import { STATIONS, type StationId } from './station-list.ts';

/** The stations as stops on one line. */
export function StationLine({ at, onGo }: { at: StationId; onGo: (station: StationId) => void }) {
  return (
    <nav aria-label="Stations" className="border-r border-line bg-paper">
      <ol className="relative mt-5">
        <li aria-hidden="true" className="absolute top-5 bottom-5 left-[23px] w-px bg-line" />
        {STATIONS.map((s) => {
          const here = s.id === at;
          return (
            <li key={s.id}>
              <button
                type="button"
                onClick={() => onGo(s.id)}
                aria-current={here ? 'page' : undefined}
                className={`relative flex h-10 w-full items-center gap-3 pl-[17px] text-left hover:text-ink ${here ? 'font-semibold' : 'text-soft'}`}
              >
                <span
                  aria-hidden="true"
                  className={`size-[13px] rounded-full border-2 ${here ? 'border-ink bg-ink ring-4 ring-line' : 'border-faint bg-paper'}`}
                />
                {s.name}
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
