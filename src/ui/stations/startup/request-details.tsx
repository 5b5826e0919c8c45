'use client';

import { X } from 'lucide-react';
import { useState } from 'react';
import { sourceRequest } from '../../../core/metrics/behind.ts';
import { analyst } from '../../../worker/client.ts';
import type { ChunkContents, LandingView } from '../../../worker/views.ts';
import { Few } from '../../parts/few.tsx';
import { size, time } from '../../parts/format.ts';
import { ROLES, RoleMark } from '../../parts/roles.tsx';
import { useAsked } from '../../state/asked.ts';
import { useWorkbench } from '../../state/workbench.ts';

const MOST = 200;

/** All about one request: why it travels, when, and what is in it. */
export function RequestDetails({ view, index }: { view: LandingView; index: number }) {
  const choose = useWorkbench((s) => s.choose);
  const request = view.timeline.requests[index];
  const contents = view.contents[index];
  const source = sourceRequest(view.timeline, request.cause);
  const by = source >= 0 ? view.timeline.requests[source] : null;
  const phases: [string, number][] = [
    ['held back', request.released - request.queued],
    ['connecting', request.sent - request.released],
    ['waiting for the answer', request.firstByte - request.sent],
    ['receiving', request.end - request.firstByte],
  ];
  return (
    <section className="mb-5 border-b border-line pb-5">
      <div className="flex items-start justify-between gap-2">
        <h2 className="min-w-0 text-[15px] font-semibold break-words">{request.name}</h2>
        <button
          type="button"
          aria-label="Close the details"
          onClick={() => choose({ selection: null })}
          className="mt-0.5 text-soft hover:text-ink"
        >
          <X size={15} />
        </button>
      </div>
      <p className="mb-2 font-mono text-[11px] break-all text-soft">{request.address}</p>
      <p className="flex items-center gap-2">
        <RoleMark role={request.role} /> {request.role}
        <span className="text-soft">{ROLES[request.role].words}</span>
      </p>
      {by ? (
        <p className="mt-1 text-soft">
          asked for by{' '}
          <button
            type="button"
            className="text-ink underline"
            onClick={() =>
              choose({
                selection: {
                  kind: 'request',
                  address: by.address,
                  chunk: view.brings[view.timeline.requests.indexOf(by)]?.chunk ?? null,
                },
              })
            }
          >
            {by.name}
          </button>
          , {time(request.discovered)}
        </p>
      ) : null}
      <Slack address={request.address} />
      <table className="mt-2 w-full">
        <tbody>
          {phases
            .filter(([, ms]) => ms >= 0.5)
            .map(([name, ms]) => (
              <tr key={name}>
                <td className="py-0.5 text-soft">{name}</td>
                <td className="py-0.5 text-right">{Math.round(ms)} ms</td>
              </tr>
            ))}
          <tr>
            <td className="py-0.5 text-soft">there at</td>
            <td className="py-0.5 text-right">{time(request.end)}</td>
          </tr>
          <tr>
            <td className="py-0.5 text-soft">on the wire</td>
            <td className="py-0.5 text-right">{size(request.bytes)}</td>
          </tr>
        </tbody>
      </table>
      {contents ? (
        <>
          <h3 className="mt-3 font-semibold">
            {contents.count} {contents.count === 1 ? 'module' : 'modules'}{' '}
            <span className="font-normal text-soft">minified</span>
          </h3>
          <Modules key={request.address} contents={contents} address={request.address} />
        </>
      ) : null}
    </section>
  );
}

/** The heaviest modules of a file; the others are fetched when somebody wants to see them. */
function Modules({ contents: { modules, count }, address }: { contents: ChunkContents; address: string }) {
  const [all, setAll] = useState(false);
  if (all) return <AllModules first={modules} address={address} />;
  const left = count - modules.length;
  return (
    <ul className="mt-1">
      {modules.map(moduleLine)}
      {left > 0 ? (
        <li>
          <button type="button" className="min-h-6 text-soft underline hover:text-ink" onClick={() => setAll(true)}>
            and {left} smaller ones
          </button>
        </li>
      ) : null}
    </ul>
  );
}

function AllModules({ first, address }: { first: ChunkContents['modules']; address: string }) {
  const { found, error } = useAsked(
    ({ plan, route, conditions }) => analyst().startup.modulesOf(plan, route, conditions, address),
    address,
  );
  return (
    <>
      <ul className="mt-1">
        <Few rows={found ?? first} most={MOST} as="li">
          {moduleLine}
        </Few>
      </ul>
      {error ? <p className="text-worse">{error}</p> : null}
    </>
  );
}

function moduleLine({ path, minified }: ChunkContents['modules'][number]) {
  return (
    <li key={path} className="flex justify-between gap-3">
      <span className="truncate text-left [direction:rtl]" title={path}>
        <bdi>{path}</bdi>
      </span>
      <span className="shrink-0">{size(minified)}</span>
    </li>
  );
}

/** How much later it could come without harm; found by running the load again and again. */
function Slack({ address }: { address: string }) {
  const { found } = useAsked(
    ({ plan, route, conditions }) => analyst().startup.slack(plan, route, conditions, address),
    address,
  );
  if (found === null) return null;
  return (
    <p className="mt-1 text-soft">
      {found >= MOST_SLACK
        ? 'However late it came, interactive would stay where it is.'
        : found < 10
          ? 'It decides: any later, and interactive is later too.'
          : `It could come ${time(found)} later without moving interactive.`}
    </p>
  );
}

const MOST_SLACK = 8000;
