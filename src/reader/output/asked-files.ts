import type { EcmaScriptModule } from 'oxc-parser';
import { parse } from '../script/parse.ts';
import { SourceText } from '../source-text.ts';
import { type FileNamer, namersIn } from './file-namers.ts';
import { type AskedTogether, askedTogether, type LoaderId, type StartedWorker, workersIn } from './loader-calls.ts';
import type { NamedFiles } from './named-files.ts';

/** A file that another one asks for. */
export interface AskedFile {
  to: string;
  kind: 'static' | 'dynamic';
  line: number;
  /** Files that are asked for together with it, by the same import. */
  besides: string[];
}

/** What a script of an output asks for. */
export interface AskedFiles {
  imports: AskedFile[];
  /** Scripts that it starts as workers, with those that each is told to take in. */
  workers: { to: string; line: number; besides: string[] }[];
}

/** A script of an output as it is understood by itself; where that leads is told when all scripts are known. */
export interface AskingScript {
  path: string;
  code: string;
  module: EcmaScriptModule;
  /** Functions of it that give a file's name for a number. */
  namers: FileNamer[];
  /** Imports of a loader; null in ES modules, which have their own. */
  together: AskedTogether[] | null;
  workers: StartedWorker[];
  /** It takes in other scripts as only workers may (`importScripts`, HTML standard). */
  takesInScripts: boolean;
}

/** Understands a script of an output as far as it tells what it asks for. RangeError where it is nested too deeply. */
export function askingScript(path: string, code: string): AskingScript {
  const { module, program } = parse(path, code, { lang: 'js' });
  const isModule = module.staticImports.length + module.dynamicImports.length > 0;
  return {
    ...{ path, code, module },
    namers: isModule ? [] : namersIn(program(), code),
    together: isModule ? null : askedTogether(program()),
    workers: /Worker\b/.test(code) ? workersIn(program()) : [],
    takesInScripts: !isModule && /\bimportScripts(\(|\.apply\(|\.call\()/.test(code),
  };
}

const NAMED = /["'`]([^"'`\s]{1,300}\.(?:m?js|css))["'`]/g;

/**
 * What a script asks for: imports where it is an ES module, with the files that the build lists beside each; in other scripts what
 * their loader asks for together, else every file that a text in it names, since a loader has to name what it loads.
 *
 * @param namers the functions of all scripts of the output that name files
 * @param workerScripts files that only a worker can run, since they take in others as only workers may
 */
export function askedFiles(
  script: AskingScript,
  namers: readonly FileNamer[],
  byName: NamedFiles,
  workerScripts: ReadonlySet<string>,
): AskedFiles {
  const { path, code, module } = script;
  const asked = new Asked(path, new SourceText(code), byName, workerScripts);
  for (const item of module.staticImports) asked.add(item.moduleRequest.value, 'static', item.start);
  for (const item of module.staticExports)
    for (const e of item.entries) if (e.moduleRequest) asked.add(e.moduleRequest.value, 'static', item.start);
  const lists = module.dynamicImports.length > 0 ? listedBeside(code, path, byName) : () => [];
  for (const item of module.dynamicImports) {
    const { start, end } = item.moduleRequest;
    const written = code.slice(start, end);
    const constant = /^(["'`])([^"'`$]*)\1$/.exec(written);
    if (constant) asked.add(constant[2], 'dynamic', item.start, lists(item.end));
    const computed = /^`([^`$]*)\$\{[^{}`]*\}([^`$]*)`$/.exec(written);
    if (computed)
      for (const to of byName.between(computed[1], computed[2], path)) asked.file(to, 'dynamic', item.start, []);
  }
  const named = (ids: readonly LoaderId[]) => ids.flatMap((id) => namers.flatMap((namer) => namer.nameFor(id) ?? []));
  for (const { start, names, ids } of script.together ?? []) asked.group([...names, ...named(ids)], start);
  if (script.together) {
    const isInNamer = (at: number) => script.namers.some((n) => n.start <= at && at < n.end);
    for (const text of code.matchAll(NAMED)) if (!isInNamer(text.index)) asked.add(text[1], 'dynamic', text.index);
  }
  for (const { start, names, ids } of script.workers)
    for (const name of [...names, ...named(ids)]) asked.worker(name, start);
  return asked.result();
}

/** What one script asks for, each file once. */
class Asked {
  private readonly imports: AskedFile[] = [];
  private readonly groups: { files: string[]; line: number }[] = [];
  private readonly workers: AskedFiles['workers'] = [];

  constructor(
    private readonly path: string,
    private readonly source: SourceText,
    private readonly byName: NamedFiles,
    private readonly workerScripts: ReadonlySet<string>,
  ) {}

  add(written: string, kind: AskedFile['kind'], at: number, besides: string[] = []): void {
    const to = this.byName.find(written, this.path);
    if (to !== null) this.file(to, kind, at, besides);
  }

  file(to: string, kind: AskedFile['kind'], at: number, besides: string[]): void {
    if (to === this.path || this.isKnown(to, kind)) return;
    const others = besides.filter((b) => b !== to && b !== this.path);
    this.imports.push({ to, kind, line: this.lineAt(at), besides: others });
  }

  /** Files that one import asks for together. */
  group(names: readonly string[], at: number): void {
    const found = names.map((name) => this.byName.find(name, this.path));
    const files = [...new Set(found)].filter((f): f is string => f !== null && f !== this.path);
    const line = this.lineAt(at);
    const started = files.find((f) => this.workerScripts.has(f));
    if (started !== undefined) this.workers.push({ to: started, line, besides: files.filter((f) => f !== started) });
    else if (files.length > 0) this.groups.push({ files, line });
  }

  worker(written: string, at: number): void {
    const to = this.byName.find(written, this.path);
    if (to !== null && !this.workers.some((w) => w.to === to))
      this.workers.push({ to, line: this.lineAt(at), besides: [] });
  }

  /** Of the files of a group the script that the fewest other groups ask for is the one that is wanted; the others are what it needs. */
  result(): AskedFiles {
    const uses = new Map<string, number>();
    for (const { files } of this.groups) for (const f of files) uses.set(f, (uses.get(f) ?? 0) + 1);
    const grouped: AskedFile[] = [];
    for (const { files, line } of this.groups) {
      const scripts = files.filter((f) => !f.endsWith('.css'));
      const own = (scripts.length > 0 ? scripts : files).reduce((best, f) =>
        uses.get(f)! <= uses.get(best)! ? f : best,
      );
      if (grouped.some((g) => g.to === own)) continue;
      grouped.push({ to: own, kind: 'dynamic', line, besides: files.filter((f) => f !== own) });
    }
    const inGroup = new Set(this.groups.flatMap((g) => g.files));
    const started = new Set(this.workers.flatMap((w) => [w.to, ...w.besides]));
    const imports = this.imports.filter((i) => !inGroup.has(i.to) && !started.has(i.to));
    return { imports: [...grouped, ...imports], workers: this.workers };
  }

  private isKnown(to: string, kind: AskedFile['kind']): boolean {
    return this.imports.some((i) => i.to === to && i.kind === kind);
  }

  private lineAt(at: number): number {
    return this.source.place(at).line;
  }
}

const TEXT = /(?:"[^"\n]{1,300}"|'[^'\n]{1,300}'|`[^`$\n]{1,300}`)/.source;
const LIST = new RegExp(`\\[\\s*((?:${TEXT}\\s*,\\s*)*${TEXT})\\s*,?\\s*\\]`, 'g');

/**
 * The files that a build lists in the argument behind an import: by name, or by their numbers in the one list of names that the script holds
 * (what an import needs besides its own file, so that all are asked for at once).
 */
function listedBeside(code: string, path: string, byName: NamedFiles): (importEnd: number) => string[] {
  const filesIn = (list: string) =>
    [...list.matchAll(/["'`]([^"'`]+)["'`]/g)].map(([, name]) => byName.find(name, path));
  const table = [...code.matchAll(LIST)]
    .map(([, list]) => filesIn(list))
    .filter((files) => files.some((f) => f !== null))
    .reduce((longest, files) => (files.length > longest.length ? files : longest), [] as (string | null)[]);
  return (importEnd) => {
    const list = /^[^[\]]*\[([^[\]]*)\]/.exec(argumentBehind(code, importEnd))?.[1] ?? '';
    const files = /^[\d,\s]+$/.test(list) ? list.split(',').map((n) => table[Number(n)] ?? null) : filesIn(list);
    return [...new Set(files)].filter((f): f is string => f !== null);
  };
}

const LONGEST_LIST = 20_000;

/** The text of the argument after the one in which a place stands, which may be in the body of a function there; empty where there is none. */
function argumentBehind(code: string, from: number): string {
  let depth = 0;
  let start = -1;
  let isInStatements = false;
  const last = Math.min(code.length, from + LONGEST_LIST);
  for (let at = from; at < last; at++) {
    const c = code[at];
    if (c === '"' || c === "'" || c === '`') at = endOfText(code, at, last);
    else if (c === '(' || c === '[' || c === '{') depth++;
    else if (depth > 0) depth -= c === ')' || c === ']' || c === '}' ? 1 : 0;
    else if (c === ')' || c === ']') return start < 0 ? '' : code.slice(start, at);
    else if (c === '}' && start >= 0) return '';
    else if (c === '}') isInStatements = false;
    else if (c === ';') isInStatements = true;
    else if (c === ',' && start >= 0) return code.slice(start, at);
    else if (c === ',' && !isInStatements) start = at + 1;
  }
  return '';
}

function endOfText(code: string, from: number, last: number): number {
  let at = from + 1;
  while (at < last && code[at] !== code[from]) at += code[at] === '\\' ? 2 : 1;
  return at;
}
