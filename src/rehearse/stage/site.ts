import fs from 'node:fs';
import { type PlannedApp, planned } from '../../core/chunks/planned.ts';
import { InputError } from '../../core/errors.ts';
import { handedHints, handedTags } from '../../core/handoff/handed-hints.ts';
import { compileLoad } from '../../core/load/compile.ts';
import { ROWS } from '../../core/load/list-lengths.ts';
import type { LoadProgram, Resource } from '../../core/load/types.ts';
import { actsOf, moduleOfAct, type NamedAct } from '../../core/rehearsals/acts.ts';
import { watchedModules } from '../../core/rehearsals/read-run.ts';
import type { Entry } from '../../core/snapshot/module-types.ts';
import { ASSUMED_ANSWER, type Route } from '../../core/snapshot/route-types.ts';
import { originOf, withoutQuery } from '../../core/text/address.ts';
import { carriedOperation, operationOf, withOperation } from '../../core/text/query-operation.ts';
import type { AnswerShape } from '../../reader/answers/answer-shapes.ts';
import { textIfThere } from '../../reader/folder-files.ts';
import { withBase } from '../../reader/html-document.ts';
import { servedPath } from '../../reader/served-files.ts';
import type { Doing } from '../measure/do-act.ts';
import type { Answer, Answering, Request } from '../serve/types.ts';
import { addressMatches, addressOn } from './addresses.ts';
import type { DataAnswers } from './answers.ts';
import type { Applied } from './apply-plan.ts';
import { compressed } from './compressed.ts';
import { bareDocument, documentOf, linkField } from './document.ts';
import { madeUp } from './made-up.ts';
import { SiteFiles } from './site-files.ts';
import { standInFor } from './stand-ins.ts';

/** The host of every rehearsed app (RFC 6761 keeps the ending for tests). */
export const HOST = 'app.test';

/** An app under a plan as it is served for landings on one route. */
export interface Site {
  hosts: string[];
  /** Path of the address that is landed on. */
  address: string;
  answering: Answering;
  /** Answers that are known before anybody asks. */
  answers: [Request, Answer][];
  /** The landing as the served files have it. */
  program: LoadProgram;
  app: PlannedApp;
  /** The module that draws each part of the landing: calls of what these export are noted. */
  watched: ReadonlyMap<string, number>;
  /** What is done once the page has come to rest, one after the other, and the module that draws what each brings (−1 where there is none). */
  acts: Doing[];
  acted: number[];
  told: string[];
}

/** What a site is made of beside the app. */
export interface SiteOptions {
  /** The app’s folder. */
  folder: string;
  /** Where on the route it is landed, when its pattern leaves that open. */
  address?: string;
  data?: DataAnswers;
  /** What answers look like that nothing else gives, by their addresses. */
  shapes?: ReadonlyMap<string, AnswerShape>;
  /** What is done one after the other: parts by their ids, routes that are moved to by their patterns. */
  acts?: readonly string[];
  /** It is served over encrypted connections; so it is unless said. */
  isSecure?: boolean;
}

/** Makes what is served of an app under a plan. Refuses apps whose documents only their own server can make. */
export function siteFor(applied: Applied, pattern: string, options: SiteOptions): Site {
  const app = planned(applied.snapshot, applied.plan);
  const program = compileLoad(app, pattern);
  return new Made(applied, app, program, pattern, options).site();
}

class Made {
  private readonly files: SiteFiles;
  private readonly told: string[] = [];
  private readonly documents = new Map<string, Answer>();
  private readonly root: string;
  private readonly watched: ReadonlyMap<string, number>;
  private readonly acts: NamedAct[];
  private readonly acted: number[];

  constructor(
    private readonly applied: Applied,
    private readonly app: PlannedApp,
    private readonly program: LoadProgram,
    private readonly pattern: string,
    private readonly options: SiteOptions,
  ) {
    this.root = fs.realpathSync(options.folder);
    this.files = new SiteFiles(this.root, app, options.isSecure ?? true);
    this.watched = watchedModules(app.snapshot, pattern, program);
    this.acts = actsOf(app.snapshot, pattern, options.acts ?? []);
    this.acted = this.acts.map((act) => moduleOfAct(app.snapshot, act) ?? -1);
  }

  site(): Site {
    const { app, program, pattern, options } = this;
    const route = this.routeOf(pattern);
    if (route.rendering === 'server' && !this.isBuilt)
      throw new InputError(
        'The server draws this route',
        `What stands in the document of ${pattern} is drawn by the app's own server, which isn't run here. Build the app and rehearse its output instead.`,
        pattern,
      );
    this.refuseUnlinked();
    if (this.isBuilt) this.files.addBuilt();
    else {
      const watched = new Set([...this.watched.values(), ...this.acted.filter((m) => m >= 0)]);
      this.told.push(...this.files.addChunks(this.applied.texts, program, [...watched]));
      this.files.addAssets();
    }
    const origins = [...new Set(program.resources.map((r) => r.origin).filter((o) => o !== ''))];
    if (program.document.markup.some((m) => m.tag === 'rules'))
      this.told.push('not rehearsed: documents that are fetched ahead; they serve the next landing');
    const address = options.address ?? addressOn(pattern);
    if (!addressMatches(pattern, withoutQuery(address)))
      throw new InputError('Another route', `${address} isn’t an address of ${pattern}.`, address);
    const document = this.documentOfRoute(route);
    if (!document)
      throw new InputError(
        'No document',
        `The folder has no HTML file for ${pattern}: its server makes it, which isn’t run here.`,
        pattern,
      );
    const answers = [...this.files.all()].map(([at, answer]): [Request, Answer] => [fileAt(at), answer]);
    answers.push([{ host: HOST, address, forDocument: true }, document]);
    return {
      hosts: [HOST, ...origins.map((o) => new URL(o).hostname)],
      ...{ address, answers },
      answering: (request) => this.answer(request),
      ...{
        program,
        app,
        watched: this.watched,
        acts: this.acts.map((act, at) => this.doing(act, at)),
        acted: this.acted,
        told: this.told,
      },
    };
  }

  /** Packages of Angular only run once their own build has linked them. */
  private refuseUnlinked(): void {
    if (this.isBuilt || !this.app.snapshot.packages.some((p) => p.name === '@angular/core')) return;
    throw new InputError(
      'Linked by its own build',
      'Packages and components of Angular only run once its own build has linked them, which isn’t run here. Build the app and rehearse its output instead.',
      '@angular/core',
    );
  }

  private doing(act: NamedAct, at: number): Doing {
    switch (act.does) {
      case 'press':
        return { does: 'press', words: act.words, module: this.acted[at] };
      case 'scroll':
        return { does: 'scroll', module: this.acted[at] };
      case 'move': {
        const others = this.app.snapshot.routes.flatMap((r) => (r.pattern === act.name ? [] : [r.pattern]));
        return { does: 'move', linkTo: act.name, others };
      }
    }
  }

  /** Whether the files of a production build are served. */
  private get isBuilt(): boolean {
    return this.app.snapshot.output !== null;
  }

  private routeOf(pattern: string): Route {
    return this.app.snapshot.routes.find((r) => r.pattern === pattern)!;
  }

  private entryOf({ realm }: Route): Entry | undefined {
    return this.app.snapshot.entries.find((e) => e.realm === realm && e.kind !== 'worker');
  }

  private async answer(request: Request): Promise<Answer | null> {
    const address = withoutQuery(request.address);
    const built = this.files.ofBuild(request.host === HOST ? null : request.host, address);
    if (built) return built;
    if (request.host !== HOST) {
      const own = this.program.resources.find((r) => r.origin !== '' && sameAddress(r.address, request));
      return own ? standInFor(own) : null;
    }
    const file = this.files.at(address);
    if (file) return file;
    const resource = this.resourceAt(address, operationOf(request.sent?.text));
    if (resource && !request.forDocument) return this.resourceAnswer(resource, request);
    const served = servedPath(this.root, address);
    if (served && !address.endsWith('.html')) return this.files.fileAnswer(served);
    if (request.forDocument) return this.document(address);
    if (/\.\w+$/.test(address) && !/\.json$/.test(address)) return this.files.named(address);
    return this.dataAnswer(request, ASSUMED_ANSWER);
  }

  /** What of the landing is asked for at an address; of queries that go to one address the one of that name. */
  private resourceAt(address: string, operation: string | null): Resource | undefined {
    const there = this.program.resources.filter(
      (r) => r.origin === '' && addressMatches(r.address, address) && !r.document,
    );
    return there.find((r) => carriedOperation(r.address) === operation) ?? there.find((r) => !r.address.includes('#'));
  }

  private async resourceAnswer(resource: Resource, request: Request): Promise<Answer> {
    const { type, serverMs, cache } = resource;
    const { address } = request;
    if (type === 'fetch') return this.dataAnswer(request, resource);
    const served = servedPath(this.root, address);
    if (!served) {
      this.tellOnce(
        `a stand-in of ${Math.round(resource.bytes)} bytes for ${resource.address}, which isn't in the folder`,
      );
      return standInFor(resource);
    }
    return { ...this.files.fileAnswer(served), serverMs, cache };
  }

  private async dataAnswer(
    { address, sent }: Request,
    { bytes, serverMs }: { bytes: number; serverMs: number },
  ): Promise<Answer> {
    const known = await this.options.data?.(address, sent);
    if (known) return { ...known, cache: 'no-store', serverMs };
    const plain = withOperation(withoutQuery(address), operationOf(sent?.text));
    const like = [...(this.options.shapes ?? [])].find(
      ([pattern]) =>
        addressMatches(pattern, withoutQuery(plain)) && carriedOperation(pattern) === carriedOperation(plain),
    )?.[1];
    this.tellOnce(
      like
        ? `a made-up answer for ${plain}: ${like.written} in the code, lists with ${ROWS} rows`
        : `a stand-in (an empty list) for the answer of ${plain}`,
    );
    const text = like ? JSON.stringify(madeUp(like.shape)) : '[]';
    return { type: 'application/json', body: Buffer.from(text.padEnd(bytes)), cache: 'no-store', serverMs };
  }

  private tellOnce(message: string): void {
    if (!this.told.includes(message)) this.told.push(message);
  }

  /** The text of a route’s document; null where only a server makes it. */
  private writtenFor(route: Route, program: LoadProgram, written: string | null): string | null {
    const hints = handedHints(this.app, route.pattern);
    const script = hints === '' ? '' : `<script type="module">${hints.replace(/<\//g, '<\\/')}</script>`;
    if (this.isBuilt) {
      const { first, last } = handedTags(this.app, route.pattern);
      return written && withInHead(written, first, last + script);
    }
    if (written !== null) return documentOf(withBase(written), program, script);
    this.tellOnce('an empty page stands in for the document, which is no file of the folder');
    const starts = this.entryOf(route)?.modules ?? [];
    return documentOf(bareDocument(starts.map((path) => this.applied.texts[path] ?? '')), program, script);
  }

  private document(address: string): Answer | null {
    const { routes } = this.app.snapshot;
    const route = routes.find((r) => r.pattern === address) ?? routes.find((r) => addressMatches(r.pattern, address));
    return route ? this.documentOfRoute(route) : null;
  }

  /** The document of a route, with the hints that the plan gives it. */
  private documentOfRoute(route: Route): Answer | null {
    const known = this.documents.get(route.pattern);
    if (known) return known;
    const program = route.pattern === this.pattern ? this.program : compileLoad(this.app, route.pattern);
    const { document } = program;
    const entry = this.entryOf(route);
    const written = entry?.document ? textIfThere(this.root, entry.document) : null;
    const html = this.writtenFor(route, program, written);
    if (html === null) return null;
    const made = compressed({
      ...{
        type: 'text/html; charset=utf-8',
        body: Buffer.from(html),
        cache: 'no-store' as const,
        serverMs: document.serverMs,
      },
      links: document.linkHeader.map((l) => linkField(l, program)),
      earlyLinks: document.earlyHints.map((l) => linkField(l, program)),
    });
    this.documents.set(route.pattern, made);
    return made;
  }
}

/** A document as it is written, with something at the beginning of its head. */
function withInHead(html: string, first: string, last: string): string {
  const head = /<head[^>]*>/i.exec(html);
  const start = head ? head.index + head[0].length : 0;
  const closed = html.slice(start).search(/<\/head\s*>|<body[\s>]/i);
  const end = closed < 0 ? start : start + closed;
  return html.slice(0, start) + first + html.slice(start, end) + last + html.slice(end);
}

function sameAddress(whole: string, { host, address }: Request): boolean {
  return (
    new URL(originOf(whole)).hostname === host &&
    withoutQuery(whole.slice(originOf(whole).length)) === withoutQuery(address)
  );
}

const fileAt = (address: string): Request => ({ host: HOST, address, forDocument: false });
