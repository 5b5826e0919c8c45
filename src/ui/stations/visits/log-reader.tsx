'use client';

import { proxy } from 'comlink';
import { useRef, useState } from 'react';
import { withLearned } from '../../../core/amend/visits.ts';
import { counted } from '../../../core/text/counted.ts';
import type { Learned, LogTrouble } from '../../../core/visitors/learn.ts';
import { analyst } from '../../../worker/client.ts';
import { percent, time } from '../../parts/format.ts';
import { Modal } from '../../parts/modal.tsx';
import { useAmendments } from '../../state/amendments.ts';
import { longWork } from '../../state/long-work.ts';
import { useWorkbench } from '../../state/workbench.ts';

type State =
  | { at: 'nothing' }
  | { at: 'reading'; name: string; share: number; lines: number }
  | { at: 'read'; name: string; learned: Learned }
  | { at: 'refused'; name: string; detail: string };

/** Learns shares, moves and dwell times from a navigation log, and lays them over what was said once the person agrees. */
export function LogReader() {
  const [state, setState] = useState<State>({ at: 'nothing' });
  const input = useRef<HTMLInputElement>(null);
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  const app = useWorkbench((s) => s.app);
  const close = () => setState({ at: 'nothing' });
  const read = async (file: File) => {
    setState({ at: 'reading', name: file.name, share: 0, lines: 0 });
    try {
      const learned = await (await longWork()).visits.learn(
        file,
        proxy((bytes: number, lines: number) =>
          setState((s) => (s.at === 'reading' ? { ...s, share: bytes / Math.max(1, file.size), lines } : s)),
        ),
      );
      setState((s) => (s.at === 'reading' ? { at: 'read', name: file.name, learned } : s));
    } catch (error) {
      setState({ at: 'refused', name: file.name, detail: error instanceof Error ? error.message : String(error) });
    }
  };
  const take = async (learned: Learned) => {
    const { notes } = await analyst().visits.visitors();
    if (app)
      amend(
        withLearned(amendments, { routes: app.routes, visitors: notes }, learned),
        `visitors from a log of ${counted(learned.visits, 'visit')}`,
      );
    close();
  };
  return (
    <section className="mt-5">
      <h2 className="mb-1 font-semibold">From a log</h2>
      <p className="mb-2 text-soft">
        CSV or JSON lines with visit, time, route and action: shares, moves and pauses are learned from it.
      </p>
      <input
        ref={input}
        type="file"
        accept=".csv,.jsonl,.ndjson,.json,.txt"
        className="sr-only"
        aria-label="Navigation log"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) void read(file);
        }}
      />
      <button
        type="button"
        className="rounded border border-line px-2.5 py-1 hover:border-ink"
        onClick={() => input.current?.click()}
      >
        Read a log …
      </button>
      {state.at === 'nothing' ? null : (
        <Modal title={state.name} width="wide" onClose={close}>
          {state.at === 'reading' ? (
            <>
              <progress value={state.share} aria-label="read" className="h-2 w-full" />
              <p className="mt-1 text-soft">{state.lines.toLocaleString('en')} lines read</p>
            </>
          ) : state.at === 'refused' ? (
            <p className="text-worse">{state.detail}</p>
          ) : (
            <Summary learned={state.learned} onTake={() => void take(state.learned)} onLeave={close} />
          )}
        </Modal>
      )}
    </section>
  );
}

function Summary({ learned, onTake, onLeave }: { learned: Learned; onTake: () => void; onLeave: () => void }) {
  const all = learned.landings.reduce((sum, l) => sum + l.landings, 0);
  const rows = [...learned.landings].sort((a, b) => b.stays - a.stays);
  const dwell = new Map(learned.notes.routes?.map((r) => [r.pattern, r.dwell]));
  return (
    <>
      <p>
        {learned.visits.toLocaleString('en')} visits in {learned.lines.toLocaleString('en')} lines.
      </p>
      {learned.troubles.length > 0 ? (
        <div className="mt-2 max-h-28 overflow-y-auto" role="alert">
          {learned.troubles.map((t) => (
            <p key={`${t.kind} ${t.what}`} className="text-worse">
              {troubleWords(t)}
            </p>
          ))}
        </div>
      ) : null}
      <div className="mt-3 max-h-64 overflow-y-auto">
        <table className="w-full">
          <thead>
            <tr className="text-right text-[11px] text-soft">
              <th className="text-left font-normal">route</th>
              <th className="font-normal">landings</th>
              <th className="font-normal">stays</th>
              <th className="font-normal">between moments</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => {
              const pause = dwell.get(r.pattern);
              return (
                <tr key={r.pattern} className="border-t border-line text-right">
                  <th className="py-0.5 text-left font-normal">{r.pattern}</th>
                  <td>{all > 0 ? percent(r.landings / all) : '–'}</td>
                  <td>{r.stays}</td>
                  <td>{pause ? time(pause.medianMs) : '–'}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <div className="mt-4 flex justify-end gap-2">
        <button type="button" onClick={onLeave} className="rounded border border-line px-3 py-1.5">
          Leave it
        </button>
        <button
          type="button"
          disabled={learned.visits === 0}
          onClick={onTake}
          className="rounded bg-ink px-3 py-1.5 font-medium text-on-ink disabled:opacity-40"
        >
          Use these visitors
        </button>
      </div>
    </>
  );
}

function troubleWords({ kind, what, count, line }: LogTrouble): string {
  const often = `${count.toLocaleString('en')} ${count === 1 ? 'line' : 'lines'}, the first is line ${line}`;
  switch (kind) {
    case 'unknown route':
      return `${what} is no route of this app: left aside (${often}).`;
    case 'unknown action':
      return `No part answers to ${what}: left aside (${often}).`;
    case 'clock':
      return `Time goes backwards within a visit: left aside (${often}; visit ${what}).`;
    case 'unreadable':
      return `Not readable: left aside (${often}).`;
  }
}
