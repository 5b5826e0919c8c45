import type { ReadingOffers } from '../../../core/errors.ts';

/** What can be read in place of a folder in which nothing was found that starts an app. `onApp`: null where its folders can't be read alone. */
export function ReadingOffer({
  offers: { apps, starts },
  onApp,
  onStart,
}: {
  offers: ReadingOffers;
  onApp: ((folder: string) => void) | null;
  onStart: (file: string) => void;
}) {
  return (
    <>
      {onApp && apps.length > 0 ? <Choices title="Read one of its apps" paths={apps} onChoose={onApp} /> : null}
      {starts.length > 0 ? <Choices title="Read it from one of these files" paths={starts} onChoose={onStart} /> : null}
    </>
  );
}

function Choices({ title, paths, onChoose }: { title: string; paths: string[]; onChoose: (path: string) => void }) {
  return (
    <section aria-label={title} className="mt-2">
      <h3 className="text-soft">{title}</h3>
      <ul className="max-h-40 overflow-y-auto">
        {paths.map((path) => (
          <li key={path}>
            <button
              type="button"
              title={path}
              className="block w-full truncate rounded px-1.5 py-0.5 text-left font-mono text-xs text-ink underline hover:bg-band"
              onClick={() => onChoose(path)}
            >
              {path}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
