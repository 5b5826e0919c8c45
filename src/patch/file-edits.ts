import MagicString from 'magic-string';
import { nameOf, type SyntaxNode, walk } from '../reader/syntax.ts';
import { bindingsOf, ScriptFile, specifierOf } from './script-file.ts';

/** One statement for all names that are taken from a package. */
interface Added {
  from: string;
  names: string[];
}

/** The rest of an effect that waits for imports. */
interface WaitingEffect {
  fn: SyntaxNode;
  body: SyntaxNode;
  insertAt: SyntaxNode;
  braced: boolean;
  statements: string[];
}

/** Edits of one file, gathered and then written at once, so that imports are added and left out once for all of them. */
export class FileEdits {
  readonly file: ScriptFile;
  readonly out: MagicString;
  private readonly dropped = new Set<SyntaxNode>();
  private readonly made: SyntaxNode[] = [];
  /** Statements to be added: as written, or names of a package. */
  private readonly imports: (string | Added)[] = [];
  private readonly lines: string[] = [];
  private readonly added = new Map<SyntaxNode, string[]>();
  private readonly released = new Map<string, number>();
  private readonly held = new Set<string>();
  private readonly names = new Map<string, string>();
  private readonly given = new Set<string>();
  private readonly inView = new Set<string>();
  private readonly omitted = new Set<string>();
  private readonly insideDone = new Set<number>();
  private readonly effects = new Map<SyntaxNode, WaitingEffect>();
  private readonly bodies = new Map<SyntaxNode, { body: SyntaxNode; statements: string[] }>();

  constructor(path: string, text: string) {
    this.file = new ScriptFile(path, text);
    this.out = new MagicString(text);
  }

  /** A statement goes, with its line. */
  drop(statement: SyntaxNode): void {
    this.dropped.add(statement);
  }

  /** A deferred component or another line at the top of the module, after its imports. */
  top(line: string): void {
    if (!this.lines.includes(line)) this.lines.push(line);
  }

  /** A line at the top that declares a name (`NAME` in it), once per line; gives the name, which nothing else has. */
  named(wanted: string, line: string): string {
    const known = this.names.get(line);
    if (known) return known;
    const name = this.freeName(wanted);
    this.names.set(line, name);
    this.top(line.replace('NAME', name));
    return name;
  }

  /** A name that nothing in the file goes by, nor was given out before: the wanted one, or that with a number. */
  freeName(wanted: string): string {
    let name = wanted;
    for (let n = 2; this.file.knows(name) || this.given.has(name); n++) name = `${wanted}${n}`;
    this.given.add(name);
    return name;
  }

  /** Notes that what is imported by a specifier waits until its place is in view. */
  waitsForView(specifier: string): void {
    this.inView.add(specifier);
  }

  isInView(specifier: string): boolean {
    return this.inView.has(specifier);
  }

  import(line: string): void {
    if (!this.imports.includes(line)) this.imports.push(line);
  }

  /** The top-level statement of a deferred component, beside which others are put. */
  beside(statement: SyntaxNode): void {
    this.made.push(statement);
  }

  /**
   * Makes sure that a name of a package is imported, and gives the words to use it by; null when the file means
   * something else by that name.
   */
  use(name: string, from: string): string | null {
    const here = this.file.imports().filter((s) => specifierOf(s) === from && !this.dropped.has(s));
    for (const statement of here) {
      if (statement.importKind === 'type') continue;
      const bound = bindingsOf(statement).find((b) => b.imported === name && !b.isType);
      if (bound) {
        this.held.add(bound.local);
        return bound.local;
      }
    }
    const values = here.filter((s) => s.importKind !== 'type');
    const whole = values
      .flatMap(bindingsOf)
      .find((b) => b.imported === '*' || (from === 'react' && b.imported === 'default'));
    const named = values.find((s) => bindingsOf(s).some((b) => b.imported !== 'default' && b.imported !== '*'));
    if (whole && !named) return `${whole.local}.${name}`;
    const mine = this.imports.find((i) => typeof i !== 'string' && i.from === from) as Added | undefined;
    const names = named ? this.added.get(named) : mine?.names;
    if (names?.includes(name)) return name;
    if (this.file.knows(name)) return null;
    if (names) names.push(name);
    else if (named) this.added.set(named, [name]);
    else this.imports.push({ from, names: [name] });
    return name;
  }

  /** A use of a name is gone; its import goes with the last one. */
  release(local: string): void {
    this.released.set(local, (this.released.get(local) ?? 0) + 1);
  }

  /** A name isn't imported any more. */
  omit(local: string): void {
    this.omitted.add(local);
  }

  /** Statements before what a function gives whose body is one expression: it becomes a block, once for all of them. */
  beforeBody(fn: SyntaxNode, body: SyntaxNode, statement: string): void {
    const cached = this.bodies.get(fn);
    if (cached) cached.statements.push(statement);
    else this.bodies.set(fn, { body, statements: [statement] });
  }

  /**
   * From a statement on an effect waits for imports, in a function of its own, as its answer is what cleans up; what was taken back meanwhile isn't
   * done any more. Once for all of them: of two places (in two branches, say) all from the statement of the effect on that holds the earlier waits.
   */
  waitInEffect(
    fn: SyntaxNode,
    body: SyntaxNode,
    insertAt: SyntaxNode,
    braced: boolean,
    statements: readonly string[],
  ): void {
    const cached = this.effects.get(fn);
    if (cached) {
      cached.statements.push(...statements);
      if (insertAt === cached.insertAt) return;
      const first = Math.min(insertAt.start, cached.insertAt.start);
      const own = (body.body as SyntaxNode[]).find((s) => s.start <= first && first < s.end)!;
      Object.assign(cached, { insertAt: own, braced: false });
    } else this.effects.set(fn, { fn, body, insertAt, braced, statements: [...statements] });
  }

  /** Makes a function async, once. */
  makeAsync(fn: SyntaxNode): void {
    if (fn.async === true || this.insideDone.has(fn.start)) return;
    this.insideDone.add(fn.start);
    this.out.prependLeft(this.file.beginningOf(fn), 'async ');
    const answer = fn.returnType as SyntaxNode | null | undefined;
    const type = answer?.typeAnnotation as SyntaxNode | undefined;
    if (type?.type === 'TSVoidKeyword') this.out.overwrite(type.start, type.end, 'Promise<void>');
  }

  /** The edited text. */
  finish(): string {
    const { newline } = this.file;
    for (const [statement, names] of this.added) {
      const last = (statement.specifiers as SyntaxNode[]).at(-1)!;
      this.out.appendLeft(last.end, `, ${names.join(', ')}`);
    }
    for (const [fn, { body, statements }] of this.bodies) this.openBody(fn, body, statements);
    for (const effect of this.effects.values()) this.writeEffect(effect);
    const unused = [...this.released].filter(
      ([local, times]) => !this.held.has(local) && times === this.file.references(local)?.length,
    );
    this.leaveOut(new Set([...unused.map(([local]) => local), ...this.omitted]));
    const anchor = this.file
      .imports()
      .filter((s) => !this.dropped.has(s))
      .at(-1);
    this.removeDropped();
    const imports = this.imports
      .map((i) => (typeof i === 'string' ? i : `import { ${i.names.join(', ')} } from ${this.file.quoted(i.from)};`))
      .join(newline);
    const lines = this.lines.join(newline);
    const made = this.made.filter((s) => !this.dropped.has(s)).at(-1);
    if (made && lines !== '') this.out.appendLeft(made.end, `${newline}${lines}`);
    const below = made ? '' : lines;
    if (!anchor) this.begin(imports, below);
    else {
      if (imports !== '') this.out.appendLeft(anchor.end, `${newline}${imports}`);
      if (below !== '') this.out.appendLeft(anchor.end, `${newline}${newline}${below}`);
    }
    return this.out.toString();
  }

  private writeEffect({ body, insertAt, braced, statements }: WaitingEffect): void {
    const { newline } = this.file;
    const all = body.body as SyntaxNode[];
    const outer = `${newline}${this.file.indentOf(all[0])}`;
    const indent = `${newline}${this.file.indentOf(insertAt)}`;
    const gone = this.file.knows('gone') ? this.freeName('goneMeanwhile') : 'gone';
    const lines = [...statements, `if (${gone}) return;`].map((s) => `${indent}  ${s}`).join('');
    const end = braced ? insertAt : (this.blockOf(body, insertAt).body as SyntaxNode[]).at(-1)!;
    this.out.appendLeft(all[0].start, `let ${gone} = false;${outer}`);
    this.out.appendLeft(insertAt.start, `void (async () => {${lines}${indent}  `);
    this.out.appendRight(end.end, `${indent}})();`);
    this.out.appendRight(all.at(-1)!.end, `${outer}return () => {${outer}  ${gone} = true;${outer}};`);
  }

  /** The block whose own statement a statement is. */
  private blockOf(body: SyntaxNode, statement: SyntaxNode): SyntaxNode {
    let found = body;
    walk(body, (node) => {
      if (node.type === 'BlockStatement' && (node.body as SyntaxNode[]).includes(statement)) found = node;
    });
    return found;
  }

  private openBody(fn: SyntaxNode, body: SyntaxNode, statements: readonly string[]): void {
    const { newline, text } = this.file;
    const indent = this.file.indentOf(fn);
    const inner = `${newline}${indent}  `;
    // What a body in parentheses gives is the whole of them.
    const open = text.lastIndexOf('=>', body.start) + 2;
    this.out.appendLeft(open, ` {${inner}${statements.join(inner)}${inner}return`);
    this.out.appendLeft(fn.end, `;${newline}${indent}}`);
  }

  /** Writes imports and lines into a file that has no import left: where its first one stood, else after its directives. */
  private begin(imports: string, lines: string): void {
    const { newline, text } = this.file;
    const head = [imports, lines].filter((t) => t !== '').join(`${newline}${newline}`);
    if (head === '') return;
    const gap = lines === '' ? newline : `${newline}${newline}`;
    const [first] = this.file.imports();
    const directive = this.file.body.filter((s) => typeof s.directive === 'string').at(-1);
    if (first) {
      // Before an empty line that stays there is one already.
      const blank = first.start === 0 || /\n\r?\n$/.test(text.slice(0, first.start));
      this.out.appendLeft(first.start, `${head}${blank ? `${newline}${newline}` : newline}`);
    } else if (directive) this.out.appendLeft(directive.end, `${newline}${newline}${head}`);
    else this.out.prepend(`${head}${gap}`);
  }

  /** Takes out what was dropped; of the empty lines around neighbours that all go, one stays. */
  private removeDropped(): void {
    const { text } = this.file;
    const sorted = [...this.dropped].sort((a, b) => a.start - b.start);
    let from = 0;
    for (let at = 0; at < sorted.length; at++) {
      if (at === 0 || text.slice(sorted[at - 1].end, sorted[at].start).trim() !== '') from = sorted[at].start;
      const { start, end } = sorted[at];
      let to = end + /^[ \t]*(\r?\n)?/.exec(text.slice(end))![0].length;
      const last = at + 1 === sorted.length || text.slice(end, sorted[at + 1].start).trim() !== '';
      const emptyBefore = from === 0 || /\n\r?\n$/.test(text.slice(0, from));
      if (last && emptyBefore) to += /^(\r?\n)?/.exec(text.slice(to))![0].length;
      this.out.remove(start, to);
    }
  }

  /** Leaves names out of their import statements, or a statement with its last name. */
  private leaveOut(locals: ReadonlySet<string>): void {
    for (const statement of this.file.imports()) {
      const specifiers = statement.specifiers as SyntaxNode[];
      const goes = (s: SyntaxNode) => locals.has(nameOf(s.local) ?? '');
      if (!specifiers.some(goes)) continue;
      if (specifiers.every(goes) && !this.added.has(statement)) {
        this.drop(statement);
        continue;
      }
      const others = specifiers.filter((s) => s.type === 'ImportSpecifier');
      const kept = others.map((s) => !goes(s));
      if (!kept.includes(true)) continue;
      others.forEach((s, at) => {
        if (kept[at]) return;
        // What stands before a name that stays goes up to that; what stands behind the last goes from its end.
        if (kept.includes(true, at)) this.out.remove(s.start, others[at + 1].start);
        else this.out.remove(others[at - 1].end, s.end);
      });
    }
  }
}
