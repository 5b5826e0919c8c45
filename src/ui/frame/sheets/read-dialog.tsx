'use client';

import { useRef, useState } from 'react';
import { READ_AS, type ReadAs } from '../../../core/snapshot/read-as.ts';
import { counted } from '../../../core/text/counted.ts';
import { Modal, ModalButtons } from '../../parts/modal.tsx';
import { api, type How } from '../../state/api.ts';
import { type Dropped, packFolder } from '../../state/dropped.ts';
import { useReadDialog } from '../drop.ts';
import { ReadingOffer } from './reading-offer.tsx';
import { type Started, type Told, useReading } from './use-reading.ts';

const WHAT: Record<ReadAs, string> = {
  'tell by content': 'tell by what is in it',
  sources: 'sources of an app',
  output: 'what a production build made',
};
const FIELD = 'mt-1 w-full rounded border border-line bg-paper px-2 py-1.5';

/** Brings an app: a folder on this machine, a dropped folder, an archive, a production output or a project file. */
export function ReadDialog({
  recent,
  onClose,
  onRead,
}: {
  recent: string[];
  onClose: () => void;
  onRead: (id: string) => void;
}) {
  const dropped = useReadDialog((s) => s.dropped);
  const [folder, setFolder] = useState('');
  const [said, setSaid] = useState<Said>({ as: READ_AS[0], base: '', workspace: '', starts: '' });
  const { words, share, trouble, run, stop } = useReading((id) => {
    onClose();
    onRead(id);
  });
  const busy = words !== null;
  const how = howOf(said, dropped !== null);
  const read = (from: string, wanted: How) => {
    if (dropped) void run((told) => readDropped(dropped, wanted, told));
    else void run(() => api.startReading({ folder: from, ...wanted }));
  };
  return (
    <Modal
      title="Read an app"
      about="Its code is read, never run, and nothing outside of it is read unless you say so."
      width="wide"
      onClose={() => {
        stop();
        onClose();
      }}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          read(folder.trim(), how);
        }}
      >
        {dropped ? (
          <DroppedLine dropped={dropped} busy={busy} />
        ) : (
          <>
            <label className="block text-soft">
              Folder on this machine, its whole path
              <input
                value={folder}
                disabled={busy}
                spellCheck={false}
                onChange={(event) => setFolder(event.target.value)}
                className={`${FIELD} font-mono text-xs text-ink`}
              />
            </label>
            <Recent folders={recent} onChoose={setFolder} />
            <DropPlace />
          </>
        )}
        {dropped?.kind === 'file' && /\.json$/i.test(dropped.file.name) ? null : (
          <HowFields how={said} alone={dropped !== null} set={(change) => setSaid({ ...said, ...change })} />
        )}
        {busy ? <Progress words={words} share={share} /> : null}
        {trouble ? (
          <p role="alert" className="mt-2 text-worse">
            {trouble.words}
          </p>
        ) : null}
        {trouble?.offers ? (
          <ReadingOffer
            offers={trouble.offers}
            onApp={
              dropped
                ? null
                : (app) => {
                    const whole = folder.trim().replace(/\/+$/, '');
                    setFolder(`${whole}/${app}`);
                    setSaid({ ...said, workspace: whole });
                    read(`${whole}/${app}`, { ...how, workspace: whole });
                  }
            }
            onStart={(file) => {
              setSaid({ ...said, starts: file });
              read(folder.trim(), { ...how, starts: file });
            }}
          />
        ) : null}
        <ModalButtons
          stop={busy ? 'Stop' : 'Cancel'}
          onStop={busy ? stop : onClose}
          go="Read it"
          ready={!busy && (dropped !== null || folder.trim() !== '')}
        />
      </form>
    </Modal>
  );
}

/** What is said of how to read, as typed. */
interface Said {
  as: ReadAs;
  base: string;
  workspace: string;
  starts: string;
}

/** How to read, by what was said; what comes alone (dropped here) has no workspace around it. */
function howOf({ as, base, workspace, starts }: Said, alone: boolean): How {
  return {
    as,
    ...(base.trim() === '' ? {} : { base: base.trim() }),
    ...(workspace.trim() === '' || alone ? {} : { workspace: workspace.trim() }),
    ...(starts.trim() === '' ? {} : { starts: starts.trim() }),
  };
}

function DroppedLine({ dropped, busy }: { dropped: Dropped; busy: boolean }) {
  return (
    <p className="rounded border border-line bg-band px-3 py-2">
      <span className="font-medium">{dropped.kind === 'file' ? dropped.file.name : dropped.name}</span>{' '}
      <span className="text-soft">
        {dropped.kind === 'file' ? 'as a file' : `a folder of ${counted(dropped.files.length, 'file')}`}
      </span>
      {busy ? null : (
        <button
          type="button"
          className="ml-3 text-soft underline"
          onClick={() => useReadDialog.setState({ dropped: null })}
        >
          something else
        </button>
      )}
    </p>
  );
}

function Recent({ folders, onChoose }: { folders: string[]; onChoose: (folder: string) => void }) {
  if (folders.length === 0) return null;
  return (
    <ul className="mt-1.5" aria-label="Read before">
      {folders.map((r) => (
        <li key={r} className="truncate">
          <button
            type="button"
            title={r}
            className="font-mono text-[11px] text-soft hover:text-ink hover:underline"
            onClick={() => onChoose(r)}
          >
            {r}
          </button>
        </li>
      ))}
    </ul>
  );
}

function HowFields({ how, alone, set }: { how: Said; alone: boolean; set: (change: Partial<Said>) => void }) {
  return (
    <div className="mt-3 grid grid-cols-2 gap-3">
      <label className="block text-soft">
        It holds
        <select
          value={how.as}
          onChange={(event) => set({ as: event.target.value as ReadAs })}
          className={`${FIELD} text-ink`}
        >
          {READ_AS.map((r) => (
            <option key={r} value={r}>
              {WHAT[r]}
            </option>
          ))}
        </select>
      </label>
      {how.as === 'output' || alone ? null : (
        <label className="block text-soft">
          Workspace around it, read too
          <input
            value={how.workspace}
            placeholder="asked for if needed"
            spellCheck={false}
            onChange={(event) => set({ workspace: event.target.value })}
            className={`${FIELD} text-ink`}
          />
        </label>
      )}
      {how.as === 'output' ? null : (
        <label className="block text-soft">
          Files that start it
          <input
            value={how.starts}
            placeholder="found by the reading"
            spellCheck={false}
            onChange={(event) => set({ starts: event.target.value })}
            className={`${FIELD} text-ink`}
          />
        </label>
      )}
      {how.as === 'sources' ? null : (
        <label className="block text-soft">
          Base address of an output
          <input
            value={how.base}
            placeholder="proposed by its documents"
            spellCheck={false}
            onChange={(event) => set({ base: event.target.value })}
            className={`${FIELD} text-ink`}
          />
        </label>
      )}
    </div>
  );
}

function Progress({ words, share }: { words: string; share: number }) {
  return (
    <div className="mt-3" role="status">
      <p className="text-soft">{words}</p>
      <div className="mt-1 h-1.5 bg-line">
        <div className="h-full bg-needed" style={{ width: `${share * 100}%` }} />
      </div>
    </div>
  );
}

async function readDropped(dropped: Dropped, how: How, told: Told): Promise<Started> {
  if (dropped.kind === 'folder') {
    const zip = await packFolder(dropped.files, (done) =>
      told(`${done} of ${counted(dropped.files.length, 'file')} packed`, done / dropped.files.length),
    );
    return api.readArchive(`${dropped.name}.zip`, zip, how);
  }
  const { file } = dropped;
  if (!/\.json$/i.test(file.name)) return api.readArchive(file.name, file, how);
  const { id } = await api.importProject(file.name, await file.text());
  return { id, project: true };
}

/** Where a folder, an archive or a project file can be dropped or chosen. */
function DropPlace() {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <div className="mt-3 rounded border border-dashed border-line px-3 py-3 text-center text-soft">
      or drop its folder, a .zip or .tar.gz, or a project file anywhere on this page;{' '}
      <button type="button" className="text-ink underline" onClick={() => picker.current?.click()}>
        choose a file
      </button>
      <input
        ref={picker}
        type="file"
        accept=".zip,.tgz,.gz,.json"
        aria-label="Archive or project file"
        className="hidden"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) useReadDialog.setState({ dropped: { kind: 'file', file } });
          event.target.value = '';
        }}
      />
    </div>
  );
}
