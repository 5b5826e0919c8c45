'use client';

import { landingShares } from '../../../../core/snapshot/landing-shares.ts';
import type { Route } from '../../../../core/snapshot/route-types.ts';
import { NumberField, PickField, TextField } from '../../../parts/field.tsx';
import { percent } from '../../../parts/format.ts';
import { proposeParts } from '../../../state/read-again.ts';
import { useWorkbench } from '../../../state/workbench.ts';
import { ContentTable, DataTable, FontTable } from './content-table.tsx';
import { FLUSHES_HOW, flushesOf, flushesText, REDIRECTS_HOW, redirectsOf, redirectsText } from './document-fields.ts';
import { PartsTable } from './parts-table.tsx';
import { patternTrouble, useEditor } from './use-editor.ts';
import { useModules } from './use-modules.ts';

const RENDERINGS = [
  { value: 'client', label: 'in the browser, by script' },
  { value: 'server', label: 'on the server, in the document' },
] as const;
const MOST_KB = 100_000;
const MOST_MS = 60_000;

/** One route: how it is found, drawn and filled. Every field is changed in place and can be undone. */
export function RouteEditor({ route }: { route: Route }) {
  const editor = useEditor(route);
  const { corrected, change, rename, remove, undoAll } = editor;
  const routes = useWorkbench((s) => s.app?.routes) ?? [];
  const modules = useModules();
  return (
    <div className="space-y-6">
      <section>
        <div className="flex items-baseline justify-between gap-4">
          <h1 className="truncate text-[15px] font-semibold">{route.pattern}</h1>
          <span className="flex shrink-0 gap-4 text-soft">
            {corrected === 'changed' ? (
              <button type="button" className="underline hover:text-ink" onClick={undoAll}>
                as it was read
              </button>
            ) : null}
            <button type="button" className="underline hover:text-worse" onClick={remove}>
              leave out this route
            </button>
          </span>
        </div>
        <p className="mb-3 text-soft">
          {corrected === 'added'
            ? 'added by hand'
            : route.evidence
              ? `found in ${route.evidence.path}, line ${route.evidence.line}`
              : 'found by its folder'}
          {corrected === 'changed' ? ', corrected' : ''}
        </p>
        <div className="grid grid-cols-2 gap-x-4 gap-y-3">
          <TextField
            label="Address pattern"
            value={route.pattern}
            check={(text) => patternTrouble(text, route.realm, routes)}
            onTake={rename}
          />
          <TextField
            label="Page module"
            value={route.page}
            check={modules.trouble}
            suggestions={modules.like}
            onTake={(page) => change({ page }, `page ${page}`)}
          />
          <div className="col-span-2">
            <TextField
              label="Layouts around it, outermost first"
              placeholder="none"
              value={route.layouts.join(', ')}
              check={(text) =>
                namesIn(text)
                  .map(modules.trouble)
                  .find((t) => t !== null) ?? null
              }
              onTake={(text) => change({ layouts: namesIn(text) }, 'other layouts')}
            />
          </div>
        </div>
      </section>
      <DocumentFields route={route} editor={editor} routes={routes} />
      <Unproposed route={route} />
      <PartsTable route={route} onChange={(parts, what) => change({ parts }, what)} />
      <ContentTable route={route} onChange={(content, what) => change({ content }, what)} />
      <FontTable route={route} onChange={(fonts, what) => change({ fonts }, what)} />
      <DataTable route={route} onChange={change} />
      <section>
        <h2 className="mb-1 font-semibold">Links to other routes</h2>
        <TextField
          label="Patterns, with commas between"
          placeholder="none known"
          value={route.links.join(', ')}
          check={(text) => {
            const lost = namesIn(text).find((l) => !routes.some((r) => r.pattern === l));
            return lost === undefined ? null : `There is no route ${lost}.`;
          }}
          onTake={(text) => change({ links: namesIn(text) }, 'other links')}
        />
      </section>
    </div>
  );
}

/** How the route's document is made, how large it is, and how often visits begin with it. */
function DocumentFields({
  route,
  editor: { area, change, changeArea },
  routes,
}: {
  route: Route;
  editor: ReturnType<typeof useEditor>;
  routes: Route[];
}) {
  const others = area.length - 1;
  const document = (part: Partial<Route['document']>, what: string) =>
    change({ document: { ...route.document, ...part } }, what);
  return (
    <section>
      <h2 className="mb-2 font-semibold">Its document</h2>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-3">
        <div className="w-56">
          <PickField
            label="Drawn"
            value={route.rendering}
            options={RENDERINGS}
            onTake={(rendering) =>
              change({ rendering }, `drawn ${rendering === 'server' ? 'on the server' : 'by script'}`)
            }
          />
        </div>
        <NumberField
          label="Size, compressed"
          unit="kB"
          most={MOST_KB}
          value={route.document.bytes / 1000}
          onTake={(kB) => document({ bytes: Math.round(kB * 1000) }, `document ${kB} kB`)}
        />
        <NumberField
          label="Time at the server"
          unit="ms"
          most={MOST_MS}
          value={route.document.serverMs}
          onTake={(serverMs) => document({ serverMs }, `${serverMs} ms at the server`)}
        />
        <div className="w-44">
          <TextField
            label="Redirects before it"
            placeholder="none"
            value={redirectsText(route.document)}
            check={(text) => (redirectsOf(text) === null ? REDIRECTS_HOW : null)}
            onTake={(text) => document({ redirects: redirectsOf(text) ?? [] }, `redirects ${text || 'none'}`)}
          />
        </div>
        <div className="w-44">
          <TextField
            label="Streamed in pieces"
            placeholder="at once"
            value={flushesText(route.document)}
            check={(text) => (flushesOf(text) === null ? FLUSHES_HOW : null)}
            onTake={(text) => document({ flushes: flushesOf(text) ?? [] }, `streamed ${text || 'at once'}`)}
          />
        </div>
        <div className="flex items-end gap-1">
          <div className="w-28">
            <TextField
              label="Landings, any unit"
              placeholder="as others"
              value={route.landings === undefined ? '' : String(route.landings)}
              check={(text) => (Number(text) >= 0 ? null : 'Give a number from 0, or nothing.')}
              onTake={(text) =>
                change({ landings: text === '' ? undefined : Number(text) }, `landings ${text || 'as others'}`)
              }
            />
          </div>
          <span className="pb-1 text-soft">{percent(landingShares(routes).get(route.pattern) ?? 0)} of all</span>
        </div>
        {others > 0 && area.some((r) => differs(r, route)) ? (
          <button
            type="button"
            className="pb-1 text-soft underline hover:text-ink"
            onClick={() =>
              changeArea({ rendering: route.rendering, document: route.document }, 'document as on this one')
            }
          >
            same for {others === 1 ? 'the other route' : `the ${others} others`} under /{route.pattern.split('/')[1]}
          </button>
        ) : null}
      </div>
    </section>
  );
}

/** Says that parts are those of other code, and what can be done about it. */
function Unproposed({ route }: { route: Route }) {
  const isIt = useWorkbench((s) =>
    (s.app?.unproposed ?? []).some((u) => u.realm === route.realm && u.pattern === route.pattern),
  );
  const folder = useWorkbench((s) => s.project?.folder);
  if (!isIt) return null;
  return (
    <div role="status" className="flex items-center justify-between gap-4 bg-mark px-3 py-2">
      <p>
        Parts, content and data below are those of the code that this route had before.{' '}
        {folder
          ? 'They are proposed from its new page and layouts once the folder is read again.'
          : 'This project came as a file, so its code can’t be looked at again: say them here, or read the app’s folder as a project.'}
      </p>
      {folder ? (
        <button
          type="button"
          className="shrink-0 rounded border border-soft px-3 py-1 hover:border-ink"
          onClick={() => void proposeParts()}
        >
          Propose them
        </button>
      ) : null}
    </div>
  );
}

function namesIn(text: string): string[] {
  return text
    .split(',')
    .map((t) => t.trim())
    .filter((t) => t !== '');
}

function differs(a: Route, b: Route): boolean {
  return (
    a.rendering !== b.rendering || a.document.bytes !== b.document.bytes || a.document.serverMs !== b.document.serverMs
  );
}
