'use client';

import { useState } from 'react';
import type { Route } from '../../../../core/snapshot/route-types.ts';
import { Message } from '../../../parts/message.tsx';
import { Modal, ModalButtons } from '../../../parts/modal.tsx';
import { useAmendments } from '../../../state/amendments.ts';
import { useWorkbench } from '../../../state/workbench.ts';
import { BaseField } from './base-field.tsx';
import { ProposalBar } from './proposal-bar.tsx';
import { RouteEditor } from './route-editor.tsx';
import { patternTrouble, useAddRoute } from './use-editor.ts';
import { useModules } from './use-modules.ts';
import { useProposals } from './use-proposals.ts';

/** Routes and parts as they were read, to be looked through, corrected and confirmed. */
export function RoutesPage() {
  const app = useWorkbench((s) => s.app);
  const pattern = useWorkbench((s) => s.route);
  const choose = useWorkbench((s) => s.choose);
  const [adding, setAdding] = useState(false);
  useProposals();
  if (!app) return null;
  const route = app.routes.find((r) => r.pattern === pattern);
  return (
    <div className="flex h-full min-h-0 flex-col">
      <ProposalBar />
      <div className="station-grid grid min-h-0 flex-1 grid-cols-[260px_minmax(0,1fr)]">
        <nav aria-label="Routes" className="min-h-0 overflow-y-auto border-r border-line px-3 py-3">
          <BaseField />
          <ul className="mt-3">
            {app.routes.map((r) => (
              <li key={`${r.realm} ${r.pattern}`}>
                <RouteLine
                  route={r}
                  realms={app.realms.length}
                  chosen={r === route}
                  onChoose={() => choose({ route: r.pattern, selection: null })}
                />
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="mt-3 px-2 text-soft underline hover:text-ink"
            onClick={() => setAdding(true)}
          >
            Add a route that wasn’t found
          </button>
          <LeftOut />
        </nav>
        <div className="min-h-0 overflow-y-auto px-5 py-4">
          {route ? (
            <RouteEditor key={`${route.realm} ${route.pattern}`} route={route} />
          ) : (
            <Message title={app.routes.length === 0 ? 'No routes yet' : 'No route chosen'}>
              {app.routes.length === 0
                ? 'None were found in the code. Add one by its address and the module that draws its page.'
                : 'Choose one on the left, or add one that wasn’t found.'}
            </Message>
          )}
        </div>
      </div>
      {adding ? <AddRoute realms={app.realms} routes={app.routes} onClose={() => setAdding(false)} /> : null}
    </div>
  );
}

function RouteLine({
  route,
  realms,
  chosen,
  onChoose,
}: {
  route: Route;
  realms: number;
  chosen: boolean;
  onChoose: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className={`flex w-full items-baseline justify-between gap-2 rounded-sm px-2 py-1 text-left ${chosen ? 'bg-mark font-semibold' : 'hover:bg-band'}`}
    >
      <span className="truncate" title={route.pattern}>
        {route.pattern}
      </span>
      <span className="shrink-0 text-[11px] font-normal text-soft">
        {realms > 1 ? `${route.realm}, ` : ''}
        {route.parts.length} {route.parts.length === 1 ? 'part' : 'parts'}
      </span>
    </button>
  );
}

/** Routes that were read and left out by hand; each can be taken back. */
function LeftOut() {
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  const removed = amendments.routes.filter((a) => a.kind === 'removed');
  if (removed.length === 0) return null;
  return (
    <section className="mt-5 px-2">
      <h2 className="text-soft">Left out</h2>
      <ul>
        {removed.map((a) => (
          <li key={`${a.realm} ${a.pattern}`} className="flex justify-between gap-2 py-0.5">
            <span className="truncate text-soft line-through">{a.pattern}</span>
            <button
              type="button"
              className="underline"
              onClick={() =>
                amend(
                  { ...amendments, routes: amendments.routes.filter((o) => o !== a) },
                  `remove the correction to ${a.pattern}`,
                )
              }
            >
              remove
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function AddRoute({ realms, routes, onClose }: { realms: string[]; routes: readonly Route[]; onClose: () => void }) {
  const add = useAddRoute();
  const modules = useModules();
  const [realm, setRealm] = useState(realms[0] ?? 'site');
  const [pattern, setPattern] = useState('/');
  const [page, setPage] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const field = 'mt-1 w-full rounded border border-line bg-paper px-2 py-1.5';
  return (
    <Modal
      title="Add a route"
      about="Its address pattern, and the module that draws its page."
      width="wide"
      onClose={onClose}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const wrong = patternTrouble(pattern, realm, routes) ?? modules.trouble(page);
          setTrouble(wrong);
          if (wrong !== null) return;
          add(realm, pattern, page);
          onClose();
        }}
      >
        {realms.length > 1 ? (
          <label className="mb-3 block text-soft">
            Entry
            <select value={realm} onChange={(event) => setRealm(event.target.value)} className={`${field} text-ink`}>
              {realms.map((r) => (
                <option key={r}>{r}</option>
              ))}
            </select>
          </label>
        ) : null}
        <label className="mb-3 block text-soft">
          Address pattern
          <input
            value={pattern}
            onChange={(event) => setPattern(event.target.value)}
            placeholder="/trips/:id"
            className={`${field} text-ink`}
          />
        </label>
        <label className="block text-soft">
          Page module
          <input
            value={page}
            list="page-modules"
            spellCheck={false}
            onChange={(event) => setPage(event.target.value)}
            className={`${field} font-mono text-xs text-ink`}
          />
          <datalist id="page-modules">
            {(page === '' ? [] : modules.like(page)).map((path) => (
              <option key={path} value={path} />
            ))}
          </datalist>
        </label>
        {trouble ? (
          <p role="alert" className="mt-2 text-worse">
            {trouble}
          </p>
        ) : null}
        <ModalButtons stop="Cancel" onStop={onClose} go="Add it" ready={page !== ''} />
      </form>
    </Modal>
  );
}
