'use client';

import { useState } from 'react';
import type { Rescue } from '../../server/store-trouble.ts';
import { Message } from '../parts/message.tsx';
import { api, type Refusal } from '../state/api.ts';

/** Why a project can't be opened, with what can be done. */
export function Failure({ failure }: { failure: Pick<Refusal, 'title' | 'detail' | 'rescues'> }) {
  return (
    <Message title={failure.title}>
      <p>{failure.detail}</p>
      {failure.rescues ? (
        <Rescues rescues={failure.rescues} />
      ) : (
        <>
          <button type="button" className="mt-3 underline" onClick={() => location.reload()}>
            Try again
          </button>
          <a className="ml-4 underline" href="/">
            Open the sample
          </a>
        </>
      )}
    </Message>
  );
}

function Rescues({ rescues }: { rescues: Rescue[] }) {
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  const choose = async (rescue: Rescue) => {
    setBusy(true);
    setSaid('');
    try {
      const { kept } = await api.rescue(rescue);
      // What it is called now must be read before the page goes on.
      if (kept === null) location.assign('/');
      else setSaid(`Done. The file that was there is kept as ${kept}.`);
    } catch (error) {
      setSaid((error as Error).message);
    }
    setBusy(false);
  };
  const done = said.startsWith('Done');
  return (
    <>
      {done ? null : (
        <ul className="mt-4 flex flex-col items-start gap-3">
          {rescues.map((rescue) => {
            const { act, what } = wordsOf(rescue);
            return (
              <li key={act}>
                <button
                  type="button"
                  disabled={busy}
                  className="rounded border border-line px-3 py-1 font-medium text-ink hover:border-ink disabled:opacity-50"
                  onClick={() => void choose(rescue)}
                >
                  {act}
                </button>
                <span className="mt-1 block text-soft">{what}</span>
              </li>
            );
          })}
        </ul>
      )}
      <p role="status" className="mt-4 text-ink">
        {busy ? 'Working on it; reading the sample takes some seconds …' : said}
      </p>
      {done ? (
        <a className="mt-2 inline-block underline" href="/">
          Go on
        </a>
      ) : null}
    </>
  );
}

function wordsOf(rescue: Rescue): { act: string; what: string } {
  switch (rescue.do) {
    case 'put back':
      return {
        act: 'Put the database back',
        what: 'All that was saved until it went away. A file that took its place is kept beside it.',
      };
    case 'open':
      return { act: 'Open the file that is there now', what: 'After you have put a sound one in its place.' };
    case 'copy':
      return {
        act: `Go back to the copy ${rescue.copy}`,
        what: 'Made when Yokeline was brought to a newer version; what was saved since is not in it. The file that is there is kept.',
      };
    case 'fresh':
      return { act: 'Begin afresh with the sample', what: 'The file that is there is kept beside the new one.' };
  }
}
