'use client';

import { useNotices } from './toast.ts';

/** Where notices appear, on every page. */
export function Notices() {
  const { Shown, plain } = useNotices();
  return (
    <>
      {Shown ? <Shown /> : null}
      {plain.size > 0 ? (
        <div
          role="alert"
          className="fixed right-4 bottom-[130px] z-50 w-80 rounded border border-ink bg-sheet px-4 py-3"
        >
          {[...plain].map(([id, words]) => (
            <p key={id}>{words}</p>
          ))}
          <button type="button" className="mt-2 underline" onClick={() => useNotices.setState({ plain: new Map() })}>
            Close
          </button>
        </div>
      ) : null}
    </>
  );
}
