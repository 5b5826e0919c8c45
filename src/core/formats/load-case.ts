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
  PartFont,
  Resource,
  ScreenPart,
  ScriptMode,
  Step,
} from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { originOf } from '../text/address.ts';
import { amount, bytesOf, type Fields, list, millisOf, object, oneOf, text } from '../text/fields.ts';
import { CASE_VIEWPORT, caseConditions } from './case-conditions.ts';

/** A page load written down with its conditions: document, resources with what they set off, and steps of a visitor. */
export interface LoadCase {
  id: string;
  program: LoadProgram;
  conditions: Conditions;
  /** The page before, and when it is left for this one, in ms of its own. */
  from: { program: LoadProgram; navigateAtMs: number } | null;
  /** Whether chance decides: what is predicted is a distribution then. */
  isRandom: boolean;
}

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
  'dns-prefetch': true,
  stylesheet: true,
  img: true,
  cpu: true,
  scroll: true,
  render: true,
};

class Translator {
  private readonly at = new Map<string, number>();
  private readonly resources: Resource[] = [];
  private readonly groups: Group[] = [];
  private readonly groupOf = new Map<string, number>();
  private readonly parts: ScreenPart[] = [];
  private readonly fonts = new Map<string, PartFont>();
  private readonly partOf = new Map<string, number>();

  constructor(private readonly item: Fields) {}

  translate(): LoadCase {
    const program = this.page(object(this.item.document, 'document'), 'document');
    const conditions = caseConditions(this.item);
    const { from } = this.item;
    return {
      id: text(this.item.id, 'id'),
      program,
      conditions,
      from: from === undefined ? null : new Translator(this.item).before(object(from, 'from')),
      isRandom: (conditions.link.lossPercent ?? 0) > 0,
    };
  }

  /** The page that this one is come from: it may fetch this one's document ahead. */
  private before(from: Fields): LoadCase['from'] {
    const document = object(this.item.document, 'document');
    this.at.set(text(document.url, 'document.url'), this.resources.length);
    this.addResource(text(document.url, 'document.url'), { ...document, type: 'fetch' }, 'document');
    this.resources[0].document = true;
    const program = this.page({ serverMs: 0, ...from }, 'from', false);
    return { program, navigateAtMs: millisOf(from.navigateAtMs, 'from.navigateAtMs') };
  }

  private page(document: Fields, where: string, hasSteps = true): LoadProgram {
    const described = object(this.item.resources ?? {}, 'resources');
    for (const [href, value] of Object.entries(described)) {
      const at = `resources["${href}"]`;
      this.addResource(href, object(value, at), at);
    }
    for (const [href, value] of Object.entries(described)) this.addFollow(href, object(value, `resources["${href}"]`));
    for (const [href, value] of Object.entries(described)) this.addFonts(href, object(value, `resources["${href}"]`));
    const markup = list(document.markup, `${where}.markup`).flatMap((m, i) =>
      this.markup(object(m, `${where}.markup[${i}]`), `${where}.markup[${i}]`),
    );
    const steps = hasSteps ? list(this.item.steps ?? [], 'steps') : [];
    return {
      document: this.document(document, markup, where),
      resources: this.resources,
      groups: this.groups,
      parts: this.parts,
      steps: steps.map((s, i) => this.step(object(s, `steps[${i}]`), `steps[${i}]`)),
    };
  }

  private document(document: Fields, markup: MarkupItem[], where: string): LoadProgram['document'] {
    const hints = (field: 'earlyHints' | 'linkHeader') =>
      list(document[field] ?? [], `${where}.${field}`).map((h, i) =>
        this.hint(object(h, `${where}.${field}[${i}]`), `${where}.${field}[${i}]`),
      );
    const redirects = list(document.redirects ?? [], `${where}.redirects`).map((r, i) => {
      const one = object(r, `${where}.redirects[${i}]`);
      return {
        origin: originOf(text(one.url, `${where}.redirects[${i}].url`)),
        serverMs: millisOf(one.serverMs ?? 0, `${where}.redirects[${i}].serverMs`),
      };
    });
    return {
      address: text(document.url, `${where}.url`),
      bytes: bytesOf(document.bytes, `${where}.bytes`),
      serverMs: millisOf(document.serverMs, `${where}.serverMs`),
      ...(redirects.length > 0 ? { redirects } : {}),
      cache: oneOf(document.cache ?? 'no-store', ['immutable', 'revalidate', 'no-store'] as const, `${where}.cache`),
      earlyHints: hints('earlyHints'),
      linkHeader: hints('linkHeader'),
      flush: list(document.flush ?? [], `${where}.flush`).map((f, i) => {
        const piece = object(f, `${where}.flush[${i}]`);
        return {
          upTo: bytesOf(piece.upTo, `${where}.flush[${i}].upTo`),
          atMs: millisOf(piece.atMs, `${where}.flush[${i}].atMs`),
        };
      }),
      markup: withBody(markup),
    };
  }

  private addResource(href: string, r: Fields, at: string): void {
    const type = oneOf(r.type, ['script', 'style', 'image', 'font', 'fetch'] as const, `${at}.type`);
    this.at.set(href, this.resources.length);
    this.resources.push({
      address: href,
      name: href,
      origin: originOf(href),
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
      ...(r.code === undefined ? {} : { codeBytes: bytesOf(r.decodedBytes ?? r.bytes, `${at}.decodedBytes`) }),
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

  /** Fonts that a style sheet declares, by their family. */
  private addFonts(href: string, r: Fields): void {
    const where = `resources["${href}"].fontFaces`;
    for (const [i, value] of list(r.fontFaces ?? [], where).entries()) {
      const face = object(value, `${where}[${i}]`);
      this.fonts.set(text(face.family, `${where}[${i}].family`), {
        resource: this.find(face.href, `${where}[${i}].href`),
        declaredBy: this.find(href, where),
        display: oneOf(face.display ?? 'auto', FONT_DISPLAYS, `${where}[${i}].display`),
      });
    }
  }

  private fontOf(value: unknown, at: string): Pick<ScreenPart, 'fonts'> {
    if (value === undefined) return {};
    const family = text(value, at);
    const font = this.fonts.get(family);
    if (!font) throw new InputError('Unknown font', `No style sheet of the case declares ${family}.`, at);
    return { fonts: [font] };
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
      ['preload', 'modulepreload', 'prefetch', 'preconnect', 'dns-prefetch', 'stylesheet'] as const,
      `${at}.rel`,
    );
    const href = text(h.href, `${at}.href`);
    const connects = rel === 'preconnect' || rel === 'dns-prefetch';
    return {
      rel,
      resource: connects ? -1 : this.find(href, `${at}.href`),
      ...(connects ? { origin: originOf(href) } : {}),
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
    const below = amount(m.top ?? 0, `${where}.top`) >= CASE_VIEWPORT.height;
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
              ...this.fontOf(m.font, `${where}.font`),
            }),
          },
        ];
      case 'script': {
        const mode = oneOf(
          m.mode,
          ['blocking', 'async', 'defer', 'module', 'module-async', 'inline', 'speculationrules'] as const,
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
        if (mode === 'speculationrules') return [{ at, tag: 'rules', do: this.rules(m.rules, `${where}.rules`) }];
        return [{ at, tag, group: this.group(m.src, `${where}.src`), mode: mode as ScriptMode, ...fetchpriority }];
      }
    }
  }

  /** Documents that a list of rules fetches ahead at once; what a case doesn't describe costs nothing. */
  private rules(value: unknown, at: string): Effect[] {
    const { prefetch = [] } = object(value, at);
    return list(prefetch, `${at}.prefetch`).flatMap((rule, i) =>
      list(object(rule, `${at}.prefetch[${i}]`).urls ?? [], `${at}.prefetch[${i}].urls`).flatMap((url): Effect[] => {
        const address = text(url, `${at}.prefetch[${i}].urls`);
        const resource = this.at.get(address);
        if (resource === undefined) return [];
        return [{ kind: 'rule', does: 'fetch', address, instead: [{ kind: 'fetch', resource, ahead: true }] }];
      }),
    );
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

const FONT_DISPLAYS = ['auto', 'block', 'swap', 'fallback', 'optional'] as const;

/** The end of the head stands before the first thing that shows, unless the case says where. */
function withBody(markup: MarkupItem[]): MarkupItem[] {
  if (markup.some((m) => m.tag === 'body')) return markup;
  const first = markup.findIndex((m) => m.tag === 'text' || m.tag === 'img');
  return first < 0
    ? markup
    : [...markup.slice(0, first), { at: markup[first].at, tag: 'body' }, ...markup.slice(first)];
}
