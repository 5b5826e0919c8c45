'use client';

import { useEffect, useMemo, useState } from 'react';
import type { ModuleRow } from '../../../core/inventory/inventory.ts';
import type { TextHit } from '../../../server/search.ts';
import { Few } from '../../parts/few.tsx';
import { api } from '../../state/api.ts';
import { useWorkbench } from '../../state/workbench.ts';

const MOST = 8;
const PAUSE = 250;

/** Where is this module, package or phrase? */
export function Finder({ modules, onChoose }: { modules: ModuleRow[]; onChoose: (path: string) => void }) {
  const projectId = useWorkbench((s) => s.project?.id);
  const [text, setText] = useState('');
  const [hits, setHits] = useState<TextHit[] | string>([]);
  const wanted = text.trim().toLowerCase();
  const byName = useMemo(
    () =>
      wanted === '' ? [] : modules.filter((m) => holds(m.path, wanted) || (m.package && holds(m.package, wanted))),
    [modules, wanted],
  );
  useEffect(() => {
    setHits([]);
    if (wanted.length < 3 || !projectId) return;
    const wait = setTimeout(() => {
      api.search(projectId, wanted).then(setHits, (error: Error) => setHits(error.message));
    }, PAUSE);
    return () => clearTimeout(wait);
  }, [wanted, projectId]);
  return (
    <search className="mb-4">
      <label htmlFor="finder" className="font-semibold">
        Where is …
      </label>
      <input
        id="finder"
        type="search"
        value={text}
        placeholder="module, package or phrase on screen"
        onChange={(event) => setText(event.target.value)}
        className="mt-1 w-full rounded border border-line bg-paper px-2 py-1.5"
      />
      {wanted === '' ? null : (
        <div className="mt-2 border-b border-line pb-3">
          {byName.length === 0 ? <p className="text-soft">No module of that name.</p> : null}
          <ul>
            <Few rows={byName} most={MOST} as="li" words="more modules">
              {(m) => <Result key={m.path} path={m.path} onChoose={onChoose} />}
            </Few>
          </ul>
          {typeof hits === 'string' ? <p className="mt-2 text-worse">{hits}</p> : null}
          {typeof hits !== 'string' && hits.length > 0 ? (
            <>
              <p className="mt-2 text-soft">in the shipped text of</p>
              <ul>
                <Few rows={hits} most={MOST} as="li">
                  {(h) => <Result key={h.path} path={h.path} note={h.around} onChoose={onChoose} />}
                </Few>
              </ul>
            </>
          ) : null}
        </div>
      )}
    </search>
  );
}

function holds(name: string, wanted: string): boolean {
  return name.toLowerCase().includes(wanted);
}

function Result({ path, note, onChoose }: { path: string; note?: string; onChoose: (path: string) => void }) {
  return (
    <li>
      <button
        type="button"
        onClick={() => onChoose(path)}
        className="w-full rounded-sm px-1 py-0.5 text-left hover:bg-band"
      >
        <span className="block truncate" title={path}>
          {path}
        </span>
        {note ? <span className="block truncate font-mono text-[11px] text-soft">{note}</span> : null}
      </button>
    </li>
  );
}
