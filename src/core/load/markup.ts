import type { EffectivePlan } from '../plan/effective.ts';
import { linkKey } from '../plan/effective.ts';
import type { ClassicScript, DocumentLink } from '../snapshot/document-types.ts';
import { builtTags } from './built-tags.ts';
import type { Compilation } from './compilation.ts';
import type { Files } from './files.ts';
import type { Landing } from './landing.ts';
import { type Draft, isPatient, styleLink } from './tag.ts';
import type { Action, DocumentLoad, Effect, FetchPriority, MarkupItem } from './types.ts';

const HEAD_START = 180;
const TAG_BYTES = 90;

/** The landing's document: what stands in its head and body, in order, with the hints that the plan adds. */
export function documentOf(c: Compilation, rules: Effect[]): DocumentLoad {
  const { snapshot, plan, landing, files, hints } = c;
  const { links } = hints;
  const { route } = landing;
  const scripts = snapshot.scripts.map((s) => ({ ...s, placement: plan.placements.get(s.id) ?? s.placement }));
  const built = snapshot.output ? builtTags(snapshot.output, landing, files) : null;
  const head = headOf(c, scripts, built?.head ?? null);
  const body = bodyOf(c, scripts, built?.body ?? []);
  if (rules.length > 0) head.push({ tag: 'rules', do: rules });

  const inlined = scripts.filter((s) => s.placement === 'inlined').reduce((sum, s) => sum + (s.bytes ?? 0), 0);
  const headBytes = HEAD_START + head.length * TAG_BYTES;
  const bytes = Math.max(route.document.bytes, headBytes + (body.length + 1) * TAG_BYTES) + inlined;
  const step = Math.floor((bytes - headBytes) / (body.length + 1));
  return {
    address: route.pattern,
    bytes,
    serverMs: route.document.serverMs,
    cache: 'no-store',
    earlyHints: links.early,
    linkHeader: links.header,
    ...(route.document.redirects?.length ? { redirects: route.document.redirects } : {}),
    flush: route.document.flushes ?? [],
    markup: [
      ...head.map((item, i) => ({ at: HEAD_START + i * TAG_BYTES, ...item })),
      ...body.map((item, i) => ({ at: headBytes + i * step, ...item })),
    ] as MarkupItem[],
  };
}

/** What stands in the head: links of plan and document, styles, scripts, links that can wait. `built`: the tags that a build wrote there. */
function headOf(c: Compilation, scripts: readonly ClassicScript[], built: readonly Draft[] | null): Draft[] {
  const { snapshot, plan, landing, files, hints } = c;
  const { route } = landing;
  const head: Draft[] = [];
  for (const link of hints.links.markup) if (!isPatient(link)) head.push({ tag: 'link', ...link });
  for (const link of snapshot.links)
    if (link.realm === route.realm && !plan.dropped.has(linkKey(link))) head.push(documentLink(files, link));
  const entry = files.groupOf(landing.entry);
  if (built) head.push(...built);
  else for (const r of files.groups[entry]?.resources ?? []) head.push(...styleLink(files, r));
  if (route.rendering === 'server' && !built) head.push(...listedFiles(plan, landing, files));
  for (const s of scripts) if (!BODY_PLACES.includes(s.placement)) head.push(...scriptTag(c, s));
  if (entry >= 0 && !built) head.push({ tag: 'script', group: entry, mode: 'module' });
  if (!files.groups[entry]?.resources.length) {
    for (const landed of landing.roots) {
      if (landed.askedBy < 0 && landed.root !== landing.entry)
        head.push({ tag: 'script', group: files.groupOf(landed.root), mode: 'module' });
    }
  }
  for (const link of hints.links.markup) if (isPatient(link)) head.push({ tag: 'link', ...link });
  return head;
}

/** What stands in the body: the text of parts that the document draws, its images, the tags that a build wrote, scripts. */
function bodyOf(c: Compilation, scripts: readonly ClassicScript[], built: readonly Draft[]): Draft[] {
  const { landing, files, parts } = c;
  const body: Draft[] = [{ tag: 'body' }];
  parts.forEach((part, at) => {
    if (part.drawnBy === 'document') body.push({ tag: 'text', part: at });
  });
  for (const item of landing.route.content) {
    if (item.foundIn !== 'document') continue;
    const resource = files.content(item);
    const inView = item.place === 'first screen';
    body.push({ tag: 'img', resource, lazy: item.lazy, inView, ...priorityOf(c, resource) });
  }
  body.push(...built);
  for (const s of scripts) if (BODY_PLACES.includes(s.placement)) body.push(...scriptTag(c, s));
  return body;
}

/** The priority that the plan gives a resource, as a tag says it. */
function priorityOf({ hints }: Compilation, resource: number): { fetchpriority?: FetchPriority } {
  const given = hints.priorities.get(resource);
  return given ? { fetchpriority: given } : {};
}

const BODY_PLACES: readonly string[] = ['end of body', 'after load'];

/** A link that the document carries by itself. */
function documentLink(files: Files, link: DocumentLink): Draft {
  const asked = { as: link.as, crossorigin: link.crossorigin, fetchpriority: link.priority, chosen: true };
  if (link.rel === 'preconnect') return { tag: 'link', rel: link.rel, resource: -1, origin: link.address, ...asked };
  return { tag: 'link', rel: link.rel, resource: files.linked(link, link.realm), ...asked };
}

/** A server that renders the route knows which files it needs, and lists them: no discovery hop. */
function listedFiles(plan: EffectivePlan, landing: Landing, files: Files): Draft[] {
  const listed: Draft[] = [];
  for (const landed of landing.roots) {
    if (landed.root === landing.entry || landed.trigger.on !== 'at once') continue;
    if (plan.settings.get(files.targetPath(landed.root))?.clientOnly) continue;
    for (const r of files.groups[files.groupOf(landed.root)].resources) {
      const style = styleLink(files, r);
      listed.push(
        ...(style.length ? style : [{ tag: 'link', rel: 'modulepreload', resource: r, chosen: false } as const]),
      );
    }
  }
  return listed;
}

function scriptTag(c: Compilation, script: ClassicScript): Draft[] {
  const { files } = c;
  const resource = files.script(script);
  switch (script.placement) {
    case 'inlined':
      return [{ tag: 'inline', name: script.name, cpuMs: script.evaluationMs, follow: [] }];
    case 'after load': {
      const follow: Action[] = [
        { when: 'load', do: { kind: 'script', group: files.single(resource), ordered: false } },
      ];
      return [{ tag: 'inline', name: `${script.name}, after load`, cpuMs: 0, follow }];
    }
    case 'end of body':
      return [{ tag: 'script', group: files.single(resource), mode: 'blocking', ...priorityOf(c, resource) }];
    default:
      return [{ tag: 'script', group: files.single(resource), mode: script.placement, ...priorityOf(c, resource) }];
  }
}
