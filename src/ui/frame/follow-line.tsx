'use client';

import { Popover } from 'radix-ui';
import { type AlikeLandings, causesWords, causeWords, routesWords } from '../../core/check/landing-words.ts';
import { lostWords } from '../../core/check/lost-imports.ts';
import { firstOf } from '../../core/text/first-of.ts';
import { nearName } from '../../core/text/near-name.ts';
import { analyst } from '../../worker/client.ts';
import type { ChangesView, Since } from '../../worker/services/changes.ts';
import { toast } from '../parts/toast.ts';
import { useAsked } from '../state/asked.ts';
import { compareSince, hideLast, type LastEvent, useFollowing } from '../state/following.ts';
import { useWorkbench } from '../state/workbench.ts';

/** So long landings are compared at once, in ms: the open one in any case. */
const AT_ONCE_MS = 300;
const ALL_MS = 60_000;
const MOST_NAMED = 2;

/** What was saved in the folder last, and what that did. */
export function FollowLine() {
  const last = useFollowing((s) => s.last);
  const of = useFollowing((s) => s.of);
  const project = useWorkbench((s) => s.project?.id);
  if (!last || of !== project) return <div />;
  return (
    <section
      aria-label="Saved in the folder"
      aria-live="polite"
      className="flex min-w-0 items-baseline gap-3 border-t border-line bg-band px-4 py-1"
    >
      <Said last={last} />
      <button type="button" className="ml-auto shrink-0 text-soft underline hover:text-ink" onClick={hideLast}>
        hide
      </button>
    </section>
  );
}

function Said({ last }: { last: LastEvent }) {
  const since = useFollowing((s) => s.since);
  switch (last.kind) {
    case 'asked':
      return <Changed subject={SINCE[since].subject} />;
    case 'changed':
      return <Changed subject={since === 'last save' ? savedWords(last.saved) : SINCE[since].subject} />;
    case 'same':
      if (since !== 'last save') return <Changed subject={SINCE[since].subject} />;
      return (
        <>
          <p className="min-w-0 flex-1 truncate">{savedWords(last.saved)}: nothing that ships has changed.</p>
          <SinceChoice since={since} />
        </>
      );
    case 'broken': {
      const [first, ...more] = last.at;
      return (
        <p className="truncate" title={last.at.map((f) => `${f.path}:${f.line} ${f.message}`).join('\n')}>
          <strong className="font-medium text-worse">
            {first.path ? `${nearName(`${first.path}:${first.line}`)} can’t be read` : 'The folder can’t be read'}
          </strong>{' '}
          ({first.message}){more.length > 0 ? `, nor can ${more.length} more` : ''}. The figures are of what was read
          before.
        </p>
      );
    }
    case 'trouble':
      return <p className="truncate text-worse">The folder isn’t followed: {last.message}</p>;
    default:
      return last satisfies never;
  }
}

/** What a change did to the open landing, and by which import; the others on demand. */
function Changed({ subject }: { subject: string }) {
  const { since, taken } = useFollowing();
  const route = useWorkbench((s) => s.route);
  const { found, error } = useAsked(
    ({ plan, route, conditions }) => analyst().changes.since(since, plan, conditions, route, AT_ONCE_MS),
    `${since} ${taken}`,
  );
  const here = found?.landings.find((l) => l.routes.includes(route));
  const cause = here ? causeWords(here.change, nearName) : null;
  const others = (found?.landings ?? []).filter((l) => l !== here);
  return (
    <>
      <p
        className="min-w-0 flex-1 truncate"
        title={here ? causesWords(here.change).join('\n') : undefined}
        data-follow="changed"
      >
        <strong className="font-medium">{subject}</strong>
        {' · '}
        {found ? <Lost of={found.lost} /> : null}
        {error ?? (found ? whatHappened(route, here, others, found) : 'comparing …')}
        {cause ? <span className="text-soft"> · {cause}</span> : null}
      </p>
      <AllLandings since={since} />
      <SinceChoice since={since} />
    </>
  );
}

/** Imports that lead nowhere, before anything else: what weighs less by them is no gain. */
function Lost({ of }: { of: ChangesView['lost'] }) {
  const [first, ...more] = of;
  if (!first) return null;
  return (
    <span className="text-worse" title={of.map((u) => lostWords(u)).join('\n')}>
      {lostWords(first, nearName)}
      {more.length > 0 ? `, as do ${more.length} more` : ''}
      {' · '}
    </span>
  );
}

function whatHappened(
  route: string,
  here: AlikeLandings | undefined,
  others: readonly AlikeLandings[],
  { compared, of }: ChangesView,
): string {
  if (here) {
    const alike = here.routes.length - 1;
    const also = alike === 0 ? '' : alike === of - 1 ? ' and all other landings' : ` and ${alike} more`;
    return `${route}${also}: ${here.words}`;
  }
  const routes = others.flatMap((l) => l.routes);
  if (routes.length > 0) return `this landing stays as it is; ${routesWords(routes, of)} changed`;
  return compared < of ? 'this landing stays as it is' : 'no landing changes';
}

/** What changes are counted from: as a choice, and as the subject of a sentence. */
const SINCE: Record<Since, { words: string; subject: string; heading: string }> = {
  'last save': {
    words: 'last save',
    subject: 'Since the last save',
    heading: 'What the last save did to each landing',
  },
  opened: {
    words: 'this page was opened',
    subject: 'Since this page was opened',
    heading: 'What changed since this page was opened',
  },
  'last commit': {
    words: 'last commit',
    subject: 'Since the last commit',
    heading: 'What changed since the last commit',
  },
};

function SinceChoice({ since }: { since: Since }) {
  const comparing = useFollowing((s) => s.comparing);
  return (
    <label className="shrink-0 whitespace-nowrap text-soft">
      {comparing ? 'reading the commit …' : 'since'}{' '}
      <select
        className="rounded border border-line bg-sheet px-1 text-ink disabled:opacity-50"
        value={since}
        disabled={comparing}
        onChange={({ target }) =>
          compareSince(target.value as Since).catch((error: Error) => toast.error(error.message))
        }
      >
        {(Object.keys(SINCE) as Since[]).map((s) => (
          <option key={s} value={s}>
            {SINCE[s].words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What happened to every landing, worked out when it is opened. */
function AllLandings({ since }: { since: Since }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="shrink-0 whitespace-nowrap underline hover:text-ink">all landings</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="end"
          sideOffset={6}
          collisionPadding={8}
          className="z-50 max-h-[60vh] w-[560px] max-w-[92vw] overflow-y-auto rounded border border-ink bg-sheet px-4 py-3 shadow-lg"
        >
          <LandingList since={since} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function LandingList({ since }: { since: Since }) {
  const taken = useFollowing((s) => s.taken);
  const { found, error } = useAsked(
    ({ plan, route, conditions }) => analyst().changes.since(since, plan, conditions, route, ALL_MS),
    `all ${since} ${taken}`,
  );
  return (
    <>
      <h2 className="font-semibold">{SINCE[since].heading}</h2>
      {error ? <p className="text-worse">{error}</p> : null}
      {found === null && !error ? <p className="text-soft">Comparing all landings …</p> : null}
      {found?.lost.map((u) => (
        <p key={`${u.from} ${u.specifier}`} className="text-worse">
          {lostWords(u, nearName)}
        </p>
      ))}
      {found?.landings.length === 0 ? <p>No landing changes.</p> : null}
      <ul className="mt-1">
        {found?.landings.map((l) => (
          <li key={l.routes.join()} className="border-t border-line py-1.5 first:border-t-0">
            <span className="font-medium">{routesWords(l.routes, found.of)}</span> {l.words}
            {causesWords(l.change, nearName).map((cause) => (
              <span key={cause} className="block text-soft">
                {cause}
              </span>
            ))}
          </li>
        ))}
      </ul>
    </>
  );
}

function savedWords(saved: readonly string[]): string {
  return saved.length === 0 ? 'The folder had changed' : `${firstOf(saved.map(nearName), MOST_NAMED)} saved`;
}
