import { graphIndex } from '../snapshot/graph-index.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { DocumentHintKind, Hint, HintPlace } from '../vocabulary/hints.ts';
import { isDocumentHint, isLinkHint } from '../vocabulary/hints.ts';
import { addGroups, type Compilation, type Uncompiled } from './compilation.ts';
import { type Files, preloadOf } from './files.ts';
import { walkLanding } from './landing.ts';
import type { AimedHint, DocumentHint, LandingHints } from './landing-hints.ts';
import { momentOf } from './trigger-rules.ts';
import type { Action, Effect, InteractionAction, LinkHint, RuleEffect } from './types.ts';

/** How long the pointer rests on a link before rules of moderate eagerness begin, as recorded. In ms. */
const RESTING_MS = 200;

/** Decides what a plan's hints, and those in the code, mean on a landing; their files join those of the landing. */
export function decideHints(c: Uncompiled): LandingHints {
  const { pattern } = c.landing.route;
  const decided = c.plan.hints.filter((h) => h.routes.length === 0 || h.routes.includes(pattern));
  const carried = [...decided, ...hintsInCode(c)];
  const aimed = carried.flatMap((hint) => {
    if (isDocumentHint(hint.kind)) return [];
    const found = aim(c, hint);
    return hint.kind === 'preconnect' || found.resources.length > 0 ? [found] : [];
  });
  const at = (place: HintPlace) => aimed.filter((a) => a.hint.place === place).flatMap((a) => a.links);
  return {
    carried,
    aimed,
    documents: carried.filter(isAboutDocument),
    links: { markup: at('markup'), header: at('header'), early: at('early'), script: at('script') },
    priorities: new Map(
      aimed.flatMap(({ hint, resources }) =>
        hint.kind === 'fetch priority' && hint.priority ? resources.map((r) => [r, hint.priority!] as const) : [],
      ),
    ),
  };
}

/**
 * What comments in the code's own imports ask for ahead, from modules that take part in this landing: links that are added once the
 * module which asks has run.
 */
function hintsInCode({ snapshot, landing, graph, plan }: Uncompiled): Hint[] {
  const asked = snapshot.imports.flatMap((i, at) => (i.ahead && plan.deferred[at] ? [{ ...i, ahead: i.ahead }] : []));
  const takesPart = (m: number) => landing.roots.some(({ root }) => graph.roots[root].need.includes(m));
  const { pattern } = landing.route;
  return asked.flatMap(({ from, to, ahead }) => {
    if (!takesPart(from)) return [];
    const target = { kind: 'split point' as const, module: snapshot.modules[to].path };
    return [{ kind: ahead, place: 'script', target, routes: [pattern], on: { on: 'at once' } }];
  });
}

function aim(c: Uncompiled, hint: Hint): AimedHint {
  if (hint.kind === 'preconnect')
    return { hint, resources: [], links: connectionsTo(c, hint).map((mode) => connection(hint, mode)) };
  const resources = [...new Set(filesOf(c, hint))];
  return { hint, resources, links: resources.flatMap((r) => linkTo(c.files, hint, r)) };
}

/**
 * Ways in which a route asks an origin, unless the hint says one: a connection that carries credentials serves no request
 * without them, nor the other way round (recorded). Classic scripts, styles and images go with them, what is imported and
 * fetched without.
 */
function connectionsTo({ snapshot, landing, graph, plan }: Uncompiled, { target, crossorigin }: Hint): boolean[] {
  if (crossorigin !== undefined) return [crossorigin];
  const origin = target.kind === 'origin' ? target.origin : '';
  const there = ({ address }: { address: string }) => address.startsWith(`${origin}/`);
  const built = there({ address: snapshot.base });
  const { content, data } = landing.route;
  const placed = snapshot.scripts.filter(there).map((s) => plan.placements.get(s.id) ?? s.placement);
  const withThem =
    placed.some((p) => p !== 'module' && p !== 'inlined') ||
    content.some(there) ||
    (built && graph.chunks.some((k) => k.kind === 'style'));
  const without = built || data.some(there) || placed.includes('module') || !withThem;
  return [...(withThem ? [false] : []), ...(without ? [true] : [])];
}

function filesOf(c: Uncompiled, hint: Hint): number[] {
  const { snapshot, landing, files } = c;
  const { target } = hint;
  if (target.kind === 'asset') {
    const item = landing.route.content.find((i) => i.address === target.address);
    const font = landing.route.fonts?.find((f) => f.address === target.address);
    if (font) return [files.font(font)];
    const call = landing.route.data.find((d) => d.address === target.address);
    const script = snapshot.scripts.find((s) => s.address === target.address);
    return item ? [files.content(item)] : call ? [files.data(call)] : script ? [files.script(script)] : [];
  }
  if (target.kind === 'split point') return rootFiles(c, target.module, hint.routes.length > 0);
  const route = target.kind === 'route' ? snapshot.routes.find((r) => r.pattern === target.pattern) : undefined;
  return route ? [...route.layouts, route.page].flatMap((path) => rootFiles(c, path, true)) : [];
}

/** Files of a split point. A hint without routes only goes into documents whose route can come to use it. */
function rootFiles({ snapshot, graph, landing, files }: Uncompiled, path: string, anywhere: boolean): number[] {
  const module = graphIndex(snapshot).moduleAt.get(path);
  const root = graph.roots.findIndex(
    (r) => r.realm === landing.route.realm && r.kind !== 'entry' && r.target[0] === module,
  );
  if (root < 0) return [];
  const here = [...landing.roots, ...landing.later].some((l) => l.root === root);
  if (!here && !anywhere) return [];
  return graph.roots[root].group.map((c) => files.chunk(c, 'later'));
}

/** Under which circumstances a hint is followed. */
function circumstances({ media, notForDataSaver }: Hint): Pick<LinkHint, 'media' | 'notForDataSaver'> {
  return { ...(media ? { media } : {}), ...(notForDataSaver ? { notForDataSaver } : {}) };
}

/** A link that connects to an origin; `anonymous`: without credentials. */
function connection(hint: Hint, anonymous: boolean): LinkHint {
  const origin = hint.target.kind === 'origin' ? hint.target.origin : '';
  return {
    ...{ rel: 'preconnect', resource: -1, origin, chosen: true, ...circumstances(hint) },
    ...(anonymous ? { crossorigin: anonymous } : {}),
  };
}

/** The link that brings one file of a hint; none where the hint isn't carried by a link. */
function linkTo(files: Files, hint: Hint, resource: number): LinkHint[] {
  const { kind, as, crossorigin, priority } = hint;
  if (!isLinkHint(kind)) return [];
  return [
    {
      ...preloadOf(files, resource, kind),
      ...(as === undefined ? {} : { as }),
      ...(crossorigin === undefined ? {} : { crossorigin }),
      ...(priority === undefined ? {} : { fetchpriority: priority }),
      ...circumstances(hint),
    },
  ];
}

/** Hints that a script adds on this landing become actions of its entry. `page`: the part that stands for links in view. */
export function hintsByScript(c: Compilation, page: number): Action[] {
  return c.hints.aimed.flatMap(({ hint: { place, on, target }, links }) => {
    if (place !== 'script' || !on || on.on === 'approach') return [];
    const part = target.kind === 'split point' ? partOf(c, target.module) : -1;
    const when = on.on === 'visible' ? { when: 'visible' as const, target: part >= 0 ? part : page } : momentOf(on);
    return links.map((hint): Action => ({ ...when, do: { kind: 'link', hint } }));
  });
}

function partOf({ landing, parts }: Compilation, module: string): number {
  const part = landing.route.parts.find((p) => p.module === module);
  return part ? parts.findIndex((p) => p.id === part.id) : -1;
}

/** What hints begin when the pointer or focus rests on what leads to a route (its page) or a part, by its module. */
export function hintsOnApproach(c: Compilation, module: string): InteractionAction[] {
  const to = c.snapshot.routes.find((r) => r.page === module);
  return c.hints.carried.flatMap((hint): InteractionAction[] => {
    const { target, on } = hint;
    const meant =
      target.kind === 'split point'
        ? target.module === module
        : target.kind === 'route' && target.pattern === to?.pattern;
    if (on?.on !== 'approach' || !meant) return [];
    if (isAboutDocument(hint)) return to ? [{ when: 'timer', delayMs: RESTING_MS, do: ruleFor(c, hint, to) }] : [];
    return aim(c, hint).links.map((link) => ({ when: 'eval', do: { kind: 'link', hint: link } }));
  });
}

/** What the document's rules ask for at once: next documents, fetched ahead or prepared. */
export function rulesAtOnce(c: Compilation): Effect[] {
  return c.hints.documents.flatMap((hint) => {
    const { target, on } = hint;
    const to = target.kind === 'route' ? c.snapshot.routes.find((r) => r.pattern === target.pattern) : undefined;
    return on?.on !== 'approach' && to ? [ruleFor(c, hint, to)] : [];
  });
}

/** Routes whose documents this one's rules fetch ahead on the approach. */
export function routesApproached(c: Compilation): Route[] {
  const meant = new Set(
    c.hints.documents.flatMap(({ target, on }) =>
      on?.on === 'approach' && target.kind === 'route' ? [target.pattern] : [],
    ),
  );
  return c.snapshot.routes.filter((r) => meant.has(r.pattern));
}

/** What a rule does with a next document. */
const RULES: Record<DocumentHintKind, RuleEffect['does']> = {
  'prefetch document': 'fetch',
  'prepare document': 'prepare',
};

function isAboutDocument(hint: Hint): hint is DocumentHint {
  return isDocumentHint(hint.kind);
}

/** A document that is prepared asks for its files as well; nobody may ever want them. */
function ruleFor(c: Compilation, { kind, media }: DocumentHint, to: Route): Effect {
  const { snapshot, plan, graph, files, landing } = c;
  const instead: Effect[] = [{ kind: 'fetch', resource: files.document(to), ahead: true }];
  if (RULES[kind] === 'prepare' && to.realm === landing.route.realm) {
    const walk = walkLanding(snapshot, plan, graph, to);
    addGroups(walk.landing, graph, files, to.page, snapshot);
    const wanted = walk.landing.roots.filter((l) => l.inChain || l.trigger.on === 'at once');
    const resources = new Set(wanted.flatMap((l) => files.groups[files.groupOf(l.root)].resources));
    instead.push(...[...resources].map((r) => files.ahead(r, 'prefetch')));
  }
  return {
    kind: 'rule',
    does: RULES[kind],
    address: to.pattern,
    instead,
    ...(media ? { media } : {}),
  };
}
