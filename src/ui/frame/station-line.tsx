import { counted } from '../../core/text/counted.ts';
import { FINDINGS } from '../../core/vocabulary/findings.ts';
import { STATION_IDS, STATIONS, type StationId } from '../../core/vocabulary/stations.ts';
import { useFindings } from '../state/advice.ts';

/** The stations as stops on one line. */
export function StationLine({ at, onGo }: { at: StationId; onGo: (station: StationId) => void }) {
  const { open, old } = useFindings();
  // While findings are measured again nothing is said of them.
  const known = old ? [] : open;
  // Where all are listed, all are counted: the other numbers say how many of them are acted on at which station.
  const waiting = (station: StationId) =>
    station === 'advice' ? known.length : known.filter((f) => FINDINGS[f.kind].at === station).length;
  return (
    <nav aria-label="Stations" className="border-r border-line bg-paper">
      <ol className="relative mt-5">
        <li aria-hidden="true" className="absolute top-5 bottom-5 left-[23px] w-px bg-line" />
        {STATION_IDS.map((id) => {
          const here = id === at;
          return (
            <li key={id}>
              <button
                type="button"
                onClick={() => onGo(id)}
                aria-current={here ? 'page' : undefined}
                className={`relative flex h-10 w-full items-center gap-3 pl-[17px] text-left hover:text-ink ${here ? 'font-semibold' : 'text-soft'}`}
              >
                <span
                  aria-hidden="true"
                  className={`size-[13px] rounded-full border-2 ${here ? 'border-ink bg-ink ring-4 ring-line' : 'border-faint bg-paper'}`}
                />
                {STATIONS[id].name}
                {waiting(id) > 0 ? (
                  <span
                    className="ml-auto pr-3 text-[11px] font-normal text-soft"
                    title={
                      id === 'advice'
                        ? `${counted(waiting(id), 'finding')} in all`
                        : `${counted(waiting(id), 'finding')} of ${known.length} to act on here`
                    }
                  >
                    {waiting(id)}
                    <span className="sr-only">{id === 'advice' ? ' findings in all' : ' findings to act on here'}</span>
                  </span>
                ) : null}
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
