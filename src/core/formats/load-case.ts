import { InputError } from '../errors.ts';
import type {
  Action,
  ActionMoment,
  Effect,
  FetchPriority,
  Group,
  LinkHint,
  LoadProgram,
  MarkupItem,
  Resource,
  ScreenPart,
  ScriptMode,
  Step,
} from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Timeline } from '../sim/types.ts';
import { amount, bytesOf, type Fields, list, millisOf, object, oneOf, text } from '../text/fields.ts';

/** A page load written down with its conditions: document, resources with what they set off, and steps of a visitor. */
export interface LoadCase {
  id: string;
  program: LoadProgram;
  conditions: Conditions;
}

/** What is predicted of a load case, by href; in ms from the start of the navigation (steps: from the click to ready). */
export interface CasePrediction {
  id: string;
  firstContentfulPaint: number | null;
  load: number | null;
  resources: Record<string, { requestStart: number; responseEnd: number }>;
  evalEnd: Record<string, number>;
  steps: Record<string, number>;
}

const VIEWPORT = { width: 1280, height: 800 };

/** Translates a load case; throws InputError naming the field where it isn't one. */
export function parseLoadCase(value: unknown): LoadCase {
  const item = object(value, 'case');
  return new Translator(item).translate();
}

/** Effects as a case writes them: links by their `rel`; rules about next documents have no written form. */
type WrittenEffect = Exclude<Effect['kind'], 'link' | 'rule'> | LinkHint['rel'];
const WRITTEN_EFFECTS: Record<WrittenEffect, true> = {
  import: true,
  script: true,
  fetch: true,
  prefetch: true,
  preload: true,
  modulepreload: true,
  preconnect: true,
  stylesheet: true,
  img: true,
  cpu: true,
  scroll: true,
  render: true,
};

/** Reads the measures of a case off its timeline. */
export function predictionOf({ id, program }: LoadCase, timeline: Timeline): CasePrediction {
  const known = (ms: number) => (Number.isFinite(ms) ? ms : null);
  const prediction: CasePrediction = {
    id,
    firstContentfulPaint: known(timeline.moments.firstContent),
    load: known(timeline.moments.load),
    resources: {},
    evalEnd: {},
    steps: {},
  };
  for (const request of timeline.requests) {
    if (request.resource < 0) continue;
    const { address } = program.resources[request.resource];
    prediction.resources[address] = { requestStart: request.sent, responseEnd: request.end };
    if (Number.isFinite(request.evaluated)) prediction.evalEnd[address] = request.evaluated;
  }
  for (const task of timeline.tasks) {
    if (task.kind === 'evaluate' && task.request === 0) prediction.evalEnd[task.name] = task.end;
  }
  for (const step of timeline.steps) prediction.steps[step.id] = step.ready - step.at;
  return prediction;
}

class Translator {
  private readonly at = new Map<string, number>();
  private readonly resources: Resource[] = [];
  private readonly groups: Group[] = [];
  private readonly groupOf = new Map<string, number>();
  private readonly parts: ScreenPart[] = [];
  private readonly partOf = new Map<string, number>();

  constructor(private readonly item: Fields) {}

  translate(): LoadCase {
    const described = object(this.item.resources ?? {}, 'resources');
    for (const [href, value] of Object.entries(described))
      this.addResource(href, object(value, `resources["${href}"]`));
    for (const [href, value] of Object.entries(described)) this.addFollow(href, object(value, `resources["${href}"]`));
    const document = object(this.item.document, 'document');
    const markup = list(document.markup, 'document.markup').flatMap((m, i) =>
      this.markup(object(m, `document.markup[${i}]`), `document.markup[${i}]`),
    );
    const hints = (field: 'earlyHints' | 'linkHeader') =>
      list(document[field] ?? [], `document.${field}`).map((h, i) =>
        this.hint(object(h, `document.${field}[${i}]`), `document.${field}[${i}]`),
      );
    const program: LoadProgram = {
      document: {
        address: text(document.url, 'document.url'),
        bytes: bytesOf(document.bytes, 'document.bytes'),
        serverMs: millisOf(document.serverMs, 'document.serverMs'),
        cache: oneOf(document.cache ?? 'no-store', ['immutable', 'revalidate', 'no-store'] as const, 'document.cache'),
        earlyHints: hints('earlyHints'),
        linkHeader: hints('linkHeader'),
        flush: list(document.flush ?? [], 'document.flush').map((f, i) => {
          const piece = object(f, `document.flush[${i}]`);
          return {
            upTo: bytesOf(piece.upTo, `document.flush[${i}].upTo`),
            atMs: millisOf(piece.atMs, `document.flush[${i}].atMs`),
          };
        }),
        markup: withBody(markup),
      },
      resources: this.resources,
      groups: this.groups,
      parts: this.parts,
      steps: list(this.item.steps ?? [], 'steps').map((s, i) => this.step(object(s, `steps[${i}]`), `steps[${i}]`)),
    };
    return { id: text(this.item.id, 'id'), program, conditions: this.conditions() };
  }

  private conditions(): Conditions {
    const c = object(this.item.conditions, 'conditions');
    return {
      link: {
        id: 'case',
        name: 'as in the case',
        protocol: oneOf(c.protocol, ['h1', 'h2', 'h3'] as const, 'conditions.protocol'),
        tls: c.tls === false ? 'none' : '1.3',
        rttMs: millisOf(c.rttMs, 'conditions.rttMs'),
        downKbps: amount(c.downKbps, 'conditions.downKbps'),
        upKbps: amount(c.upKbps, 'conditions.upKbps'),
        dnsMs: 0,
        serverScheduling: oneOf(
          c.serverScheduling ?? 'fifo',
          ['fifo', 'urgency'] as const,
          'conditions.serverScheduling',
        ),
        queuePackets: c.queuePackets === undefined ? usualQueue(c) : amount(c.queuePackets, 'conditions.queuePackets'),
      },
      device: {
        id: 'reference',
        name: 'Reference machine',
        cpuFactor: amount(c.cpuSlowdown ?? 1, 'conditions.cpuSlowdown'),
        browserFactor: 1,
        viewport: VIEWPORT,
        touch: false,
        dataSaver: false,
      },
      cache: this.item.visit === 'repeat' ? 'returning' : 'empty',
    };
  }

  private addResource(href: string, r: Fields): void {
    const at = `resources["${href}"]`;
    const type = oneOf(r.type, ['script', 'style', 'image', 'font', 'fetch'] as const, `${at}.type`);
    this.at.set(href, this.resources.length);
    this.resources.push({
      address: href,
      name: href,
      origin: /^https?:\/\/[^/]+/.exec(href)?.[0] ?? '',
      type,
      bytes: bytesOf(r.bytes, `${at}.bytes`),
      serverMs: millisOf(r.serverMs, `${at}.serverMs`),
      cache: oneOf(
        r.cache ?? (type === 'fetch' ? 'no-store' : 'immutable'),
        ['immutable', 'revalidate', 'no-store'] as const,
        `${at}.cache`,
      ),
      cpuMs: millisOf(r.cpuMs ?? 0, `${at}.cpuMs`),
      estimatedBytes: 0,
      imports: [],
      follow: [],
      purpose: type === 'script' || type === 'style' ? 'start' : 'content',
    });
  }

  private addFollow(href: string, r: Fields): void {
    const at = `resources["${href}"]`;
    const resource = this.resources[this.at.get(href)!];
    resource.imports = list(r.imports ?? [], `${at}.imports`).map((i, n) => this.find(i, `${at}.imports[${n}]`));
    resource.follow = this.actions(r.then, `${at}.then`);
  }

  private find(value: unknown, at: string): number {
    const href = text(value, at);
    const found = this.at.get(href);
    if (found === undefined)
      throw new InputError('Unknown resource', `${href} is not among the resources of the case.`, at);
    return found;
  }

  /** A script with what it imports, in evaluation order; found one after another as the browser does. */
  private group(value: unknown, at: string): number {
    const lead = this.find(value, at);
    const href = this.resources[lead].address;
    const existing = this.groupOf.get(href);
    if (existing !== undefined) return existing;
    const order: number[] = [];
    const seen = new Set<number>();
    const visit = (r: number) => {
      if (seen.has(r)) return;
      seen.add(r);
      for (const i of this.resources[r].imports) visit(i);
      order.push(r);
    };
    const group = this.groups.push({ name: href, resources: order, after: [], loader: 'discovered' }) - 1;
    this.groupOf.set(href, group);
    visit(lead);
    return group;
  }

  private part(id: string, more: Partial<ScreenPart> = {}): number {
    const existing = this.partOf.get(id);
    if (existing !== undefined) {
      // A trigger may have named it before the markup says where it stands.
      Object.assign(this.parts[existing], more);
      return existing;
    }
    const at =
      this.parts.push({
        id,
        name: id,
        place: 'first screen',
        drawnBy: 'script',
        interactive: false,
        needs: [],
        after: [],
        fill: [],
        renderMs: 0,
        onItsOwn: false,
        ...more,
      }) - 1;
    this.partOf.set(id, at);
    return at;
  }

  private actions(value: unknown, at: string): Action[] {
    return list(value ?? [], at).map((a, i) => {
      const item = object(a, `${at}[${i}]`);
      const when = oneOf(
        item.when ?? 'eval',
        ['eval', 'paint', 'idle', 'load', 'timer', 'visible'] as const,
        `${at}[${i}].when`,
      );
      return {
        when: when as ActionMoment,
        ...(item.delayMs === undefined ? {} : { delayMs: millisOf(item.delayMs, `${at}[${i}].delayMs`) }),
        ...(item.target === undefined || when !== 'visible'
          ? {}
          : { target: this.part(text(item.target, `${at}[${i}].target`)) }),
        do: this.effect(item, `${at}[${i}]`),
      };
    });
  }

  private effect(a: Fields, at: string): Effect {
    const kind = oneOf(a.do, Object.keys(WRITTEN_EFFECTS) as WrittenEffect[], `${at}.do`);
    switch (kind) {
      case 'import':
        return { kind, group: this.group(a.href, `${at}.href`) };
      case 'script':
        return { kind, group: this.group(a.href, `${at}.href`), ordered: a.async === false };
      case 'fetch':
      case 'img':
        return { kind, resource: this.find(a.href, `${at}.href`) };
      case 'cpu':
        return { kind, ms: millisOf(a.cpuMs, `${at}.cpuMs`), name: 'work' };
      case 'scroll':
        return { kind, part: this.part(text(a.target, `${at}.target`)) };
      case 'render':
        return { kind, part: this.rendered(a, at) };
      default:
        return { kind: 'link', hint: this.hint({ ...a, rel: kind }, at) };
    }
  }

  private rendered(a: Fields, at: string): number {
    const part = this.part(text(a.id, `${at}.id`));
    for (const [i, need] of list(a.needs ?? [], `${at}.needs`).entries()) {
      const name = text(need, `${at}.needs[${i}]`);
      if (name.startsWith('render:')) this.parts[part].after.push(this.part(name.slice(7)));
      else {
        const resource = this.find(name, `${at}.needs[${i}]`);
        this.parts[part].needs.push({
          resource,
          state: this.resources[resource].type === 'script' ? 'evaluated' : 'arrived',
        });
      }
    }
    return part;
  }

  private hint(h: Fields, at: string): LinkHint {
    const rel = oneOf(
      h.rel ?? 'preload',
      ['preload', 'modulepreload', 'prefetch', 'preconnect', 'stylesheet'] as const,
      `${at}.rel`,
    );
    const href = text(h.href, `${at}.href`);
    return {
      rel,
      resource: rel === 'preconnect' ? -1 : this.find(href, `${at}.href`),
      ...(rel === 'preconnect' ? { origin: /^https?:\/\/[^/]+/.exec(href)?.[0] ?? '' } : {}),
      ...(h.as === undefined ? {} : { as: text(h.as, `${at}.as`) }),
      ...(h.crossorigin === undefined ? {} : { crossorigin: h.crossorigin !== false }),
      ...(h.fetchpriority === undefined ? {} : { fetchpriority: this.priority(h.fetchpriority, at) }),
      chosen: rel !== 'stylesheet',
    };
  }

  private priority(value: unknown, at: string): FetchPriority {
    return oneOf(value, ['high', 'low', 'auto'] as const, `${at}.fetchpriority`);
  }

  private markup(m: Fields, where: string): MarkupItem[] {
    const at = amount(m.actualAt ?? m.at, `${where}.at`);
    const tag = oneOf(m.tag, ['link', 'script', 'text', 'img', 'body'] as const, `${where}.tag`);
    const fetchpriority = m.fetchpriority === undefined ? {} : { fetchpriority: this.priority(m.fetchpriority, where) };
    const below = amount(m.top ?? 0, `${where}.top`) >= VIEWPORT.height;
    switch (tag) {
      case 'link':
        return [{ at, tag, ...this.hint(m, where) }];
      case 'body':
        return [{ at, tag }];
      case 'img':
        return [
          {
            at,
            tag,
            resource: this.find(m.src, `${where}.src`),
            lazy: m.loading === 'lazy',
            inView: !below,
            ...fetchpriority,
          },
        ];
      case 'text':
        return [
          {
            at,
            tag,
            part: this.part(String(m.id ?? `text at ${at}`), {
              drawnBy: 'document',
              place: below ? 'below' : 'first screen',
            }),
          },
        ];
      case 'script': {
        const mode = oneOf(
          m.mode,
          ['blocking', 'async', 'defer', 'module', 'module-async', 'inline'] as const,
          `${where}.mode`,
        );
        if (mode === 'inline') {
          return [
            {
              at,
              tag: 'inline',
              name: text(m.id, `${where}.id`),
              cpuMs: millisOf(m.cpuMs ?? 0, `${where}.cpuMs`),
              follow: this.actions(m.then, `${where}.then`),
            },
          ];
        }
        return [{ at, tag, group: this.group(m.src, `${where}.src`), mode: mode as ScriptMode, ...fetchpriority }];
      }
    }
  }

  private step(s: Fields, at: string): Step {
    const effects = (value: unknown, field: string) =>
      list(value ?? [], `${at}.${field}`).map((d, i) =>
        this.effect(object(d, `${at}.${field}[${i}]`), `${at}.${field}[${i}]`),
      );
    const common = {
      id: text(s.id, `${at}.id`),
      atMs: millisOf(s.atMs, `${at}.atMs`),
      do: effects(s.do, 'do'),
      ready: list(s.ready ?? [], `${at}.ready`).map((r, i) => this.find(r, `${at}.ready[${i}]`)),
    };
    if (oneOf(s.action, ['click', 'hover'] as const, `${at}.action`) === 'click') return { kind: 'click', ...common };
    return {
      kind: 'hover',
      ...common,
      leadMs: millisOf(s.leadMs, `${at}.leadMs`),
      clickDo: effects(s.clickDo, 'clickDo'),
    };
  }
}

/** Packets that the recorded link lets wait where nothing is said: 64, or twice what it holds. */
function usualQueue(c: Fields): number {
  return Math.max(64, Math.ceil((2 * Number(c.rttMs) * Number(c.downKbps)) / 8 / 1500));
}

/** The end of the head stands before the first thing that shows, unless the case says where. */
function withBody(markup: MarkupItem[]): MarkupItem[] {
  if (markup.some((m) => m.tag === 'body')) return markup;
  const first = markup.findIndex((m) => m.tag === 'text' || m.tag === 'img');
  return first < 0
    ? markup
    : [...markup.slice(0, first), { at: markup[first].at, tag: 'body' }, ...markup.slice(first)];
}
