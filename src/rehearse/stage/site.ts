import fs from 'node:fs';
import path from 'node:path';
import zlib from 'node:zlib';
import mime from 'mime';
import { type PlannedApp, planned } from '../../core/chunks/planned.ts';
import { InputError } from '../../core/errors.ts';
import { handedHints, handedTags } from '../../core/handoff/handed-hints.ts';
import { compileLoad } from '../../core/load/compile.ts';
import { addressOfChunk } from '../../core/load/files.ts';
import type { LoadProgram, Resource } from '../../core/load/types.ts';
import { watchedModules } from '../../core/rehearsals/read-run.ts';
import { ASSUMED_ANSWER, type Route } from '../../core/snapshot/route-types.ts';
import { fileOfAddress, originOf, withoutQuery } from '../../core/text/address.ts';
import { textIfThere } from '../../reader/folder-files.ts';
import { servedFile } from '../../reader/served-files.ts';
import { GZIP_LEVEL } from '../../reader/weigh.ts';
import { assemble } from '../assemble/assemble.ts';
import type { Answer, Answering, Request } from '../serve/types.ts';
import { addressMatches, addressOn } from './addresses.ts';
import type { DataAnswers } from './answers.ts';
import type { Applied } from './apply-plan.ts';
import { documentOf, linkField } from './document.ts';
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
  /** The words on what is pressed for the act; null where nothing is. */
  actWords: string | null;
  told: string[];
}

/** What a site is made of beside the app. */
export interface SiteOptions {
  /** The app’s folder. */
  folder: string;
  /** Where on the route it is landed, when its pattern leaves that open. */
  address?: string;
  data?: DataAnswers;
  /** The part that is acted on, by its id. */
  act?: string;
}

/** Makes what is served of an app under a plan. Refuses apps whose documents only their own server can make. */
export function siteFor(applied: Applied, pattern: string, options: SiteOptions): Site {
  const app = planned(applied.snapshot, applied.plan);
  const program = compileLoad(app, pattern);
  return new Made(applied, app, program, pattern, options).site();
}

class Made {
  private readonly files = new Map<string, Answer>();
  private readonly told: string[] = [];
  private readonly documents = new Map<string, Answer>();
  private readonly root: string;
  private readonly watched: ReadonlyMap<string, number>;

  constructor(
    private readonly applied: Applied,
    private readonly app: PlannedApp,
    private readonly program: LoadProgram,
    private readonly pattern: string,
    private readonly options: SiteOptions,
  ) {
    this.root = fs.realpathSync(options.folder);
    this.watched = watchedModules(app.snapshot, pattern, program, options.act);
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
    if (!this.isBuilt) {
      this.addChunks();
      this.addAssets();
    }
    const origins = [...new Set(program.resources.map((r) => r.origin).filter((o) => o !== ''))];
    if (program.document.markup.some((m) => m.tag === 'rules'))
      this.told.push('not rehearsed: documents that are fetched ahead; they serve the next landing');
    const address = options.address ?? addressOn(pattern);
    const document = this.document(withoutQuery(address));
    const answers = [...this.files].map(([at, answer]): [Request, Answer] => [fileAt(at), answer]);
    if (document) answers.push([{ host: HOST, address, forDocument: true }, document]);
    return {
      hosts: [HOST, ...origins.map((o) => new URL(o).hostname)],
      ...{ address, answers },
      answering: (request) => this.answer(request),
      ...{ program, app, watched: this.watched, actWords: this.actWords(route), told: this.told },
    };
  }

  private actWords(route: Route): string | null {
    const { act } = this.options;
    if (act === undefined) return null;
    const part = route.parts.find((p) => p.id === act);
    if (part?.action) return part.action;
    const known = route.parts.flatMap((p) => (p.action ? [p.id] : [])).join(', ') || 'none';
    throw new InputError('No such act', `Parts of ${route.pattern} behind an act: ${known}.`, act);
  }

  /** Whether the files of a production build are served. */
  private get isBuilt(): boolean {
    return this.app.snapshot.output !== null;
  }

  /** The file of a production build that is meant by a whole address; null for another one. */
  private builtFile(host: string, address: string): Answer | null {
    const { base } = this.app.snapshot;
    const whole = base.startsWith('/') ? address : `https://${host}${address}`;
    if (!this.isBuilt || !whole.startsWith(base) || (base.startsWith('/') && host !== HOST)) return null;
    const full = path.join(this.root, fileOfAddress(whole.slice(base.length)));
    const isFile = full.startsWith(this.root + path.sep) && fs.statSync(full, { throwIfNoEntry: false })?.isFile();
    return isFile && !/\.html?$/.test(full) ? this.fileAnswer(full) : null;
  }

  private routeOf(pattern: string): Route {
    return this.app.snapshot.routes.find((r) => r.pattern === pattern)!;
  }

  private addChunks(): void {
    const { graph, snapshot } = this.app;
    const addressOf = (c: number) => addressOfChunk(graph.chunks[c], snapshot.base);
    const { files, told } = assemble(snapshot, graph, this.applied.texts, addressOf, [
      ...new Set(this.watched.values()),
    ]);
    for (const { path, message } of told) this.told.push(`${path}: ${message}`);
    const { resources } = this.program;
    const programmed = new Map(resources.map((r) => [r.address, r]));
    for (const { address, kind, text } of files) {
      const of = programmed.get(address);
      const imports = (of?.imports ?? []).map((r) => `import ${JSON.stringify(resources[r].address)};\n`).join('');
      const type = kind === 'style' ? 'text/css' : 'text/javascript';
      this.files.set(
        address,
        compressed({ type, body: Buffer.from(imports + text), cache: 'immutable', serverMs: of?.serverMs ?? 5 }),
      );
    }
  }

  /** Files that code or sheets name: under the address that code knows of, and by their names for what sheets write. */
  private addAssets(): void {
    const { modules } = this.app.snapshot;
    for (const { path: file, kind } of modules) {
      const address = kind === 'asset' ? /"([^"]*)"/.exec(this.applied.texts[file] ?? '')?.[1] : undefined;
      const full = path.join(this.root, file);
      if (!address || !fs.statSync(full, { throwIfNoEntry: false })?.isFile()) continue;
      this.files.set(address, this.fileAnswer(full));
    }
  }

  private fileAnswer(full: string): Answer {
    const type = mime.getType(full) ?? 'application/octet-stream';
    return compressed({ type, body: fs.readFileSync(full), cache: 'immutable', serverMs: 5 });
  }

  private async answer(request: Request): Promise<Answer | null> {
    const address = withoutQuery(request.address);
    const built = this.builtFile(request.host, address);
    if (built) return built;
    if (request.host !== HOST) {
      const own = this.program.resources.find((r) => r.origin !== '' && sameAddress(r.address, request));
      return own ? standInFor(own) : null;
    }
    const file = this.files.get(address) ?? this.files.get(fileOfAddress(address));
    if (file) return file;
    const resource = this.program.resources.find(
      (r) => r.origin === '' && addressMatches(r.address, address) && !r.document,
    );
    if (resource && !request.forDocument) return this.resourceAnswer(resource, request.address);
    const served = servedFile(this.root, address);
    if (served && !address.endsWith('.html'))
      return this.fileAnswer(path.join(this.root, this.folderOf(served.address), served.address));
    if (request.forDocument) return this.document(address);
    if (/\.\w+$/.test(address) && !/\.json$/.test(address)) return this.named(address);
    return this.dataAnswer(request.address, ASSUMED_ANSWER);
  }

  /** Sheets name files from where they stand, which the made address doesn’t tell: found by name. */
  private named(address: string): Answer | null {
    return this.files.get(`/assets/${path.posix.basename(address)}`) ?? null;
  }

  /** In which of the folders that are served a file lies. */
  private folderOf(address: string): string {
    return ['public', 'static', '.'].find((f) => fs.existsSync(path.join(this.root, f, address))) ?? '.';
  }

  private async resourceAnswer(resource: Resource, address: string): Promise<Answer> {
    const { type, serverMs, cache } = resource;
    if (type === 'fetch') return this.dataAnswer(address, resource);
    const served = servedFile(this.root, withoutQuery(address));
    if (!served) {
      this.tellOnce(
        `a stand-in of ${Math.round(resource.bytes)} bytes for ${resource.address}, which isn't in the folder`,
      );
      return standInFor(resource);
    }
    return { ...this.fileAnswer(path.join(this.root, this.folderOf(served.address), served.address)), serverMs, cache };
  }

  private async dataAnswer(address: string, { bytes, serverMs }: { bytes: number; serverMs: number }): Promise<Answer> {
    const known = await this.options.data?.(address);
    if (known) return { ...known, cache: 'no-store', serverMs };
    this.tellOnce(`a stand-in (an empty list) for the answer of ${withoutQuery(address)}`);
    return { type: 'application/json', body: Buffer.from('[]'.padEnd(bytes)), cache: 'no-store', serverMs };
  }

  private tellOnce(message: string): void {
    if (!this.told.includes(message)) this.told.push(message);
  }

  private writtenFor(route: Route, program: LoadProgram, written: string | null): string {
    const hints = handedHints(this.app, route.pattern);
    const script = hints === '' ? '' : `<script type="module">${hints.replace(/<\//g, '<\\/')}</script>`;
    if (!this.isBuilt) return documentOf(written, program, script);
    if (written === null)
      throw new InputError(
        'No document',
        `The folder has no HTML file for ${route.pattern}: its server makes it.`,
        route.pattern,
      );
    return withFirst(written, handedTags(this.app, route.pattern) + script);
  }

  /** The document of a route, with the hints that the plan gives it. */
  private document(address: string): Answer | null {
    const { routes } = this.app.snapshot;
    const route = routes.find((r) => r.pattern === address) ?? routes.find((r) => addressMatches(r.pattern, address));
    if (!route) return null;
    const known = this.documents.get(route.pattern);
    if (known) return known;
    const program = route.pattern === this.pattern ? this.program : compileLoad(this.app, route.pattern);
    const { document } = program;
    const entry = this.app.snapshot.entries.find((e) => e.realm === route.realm && e.kind !== 'worker');
    const written = entry?.document ? textIfThere(this.root, entry.document) : null;
    const html = this.writtenFor(route, program, written);
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
function withFirst(html: string, first: string): string {
  const head = /<head[^>]*>/i.exec(html);
  const at = head ? head.index + head[0].length : 0;
  return html.slice(0, at) + first + html.slice(at);
}

function sameAddress(whole: string, { host, address }: Request): boolean {
  return (
    new URL(originOf(whole)).hostname === host &&
    withoutQuery(whole.slice(originOf(whole).length)) === withoutQuery(address)
  );
}

const fileAt = (address: string): Request => ({ host: HOST, address, forDocument: false });

const NOT_SMALLER = /^(image\/(?!svg)|video|audio|font\/woff|application\/(pdf|octet))/;

/** As servers send it that compress ahead: by the way and level by which files are weighed. */
function compressed(answer: Answer): Answer {
  if (NOT_SMALLER.test(answer.type)) return answer;
  return { ...answer, body: zlib.gzipSync(answer.body, { level: GZIP_LEVEL }), encoding: 'gzip' };
}
