import MagicString from 'magic-string';
import { nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { bindingsOf, ScriptFile, specifierOf } from './script-file.ts';

/** Edits of one file, gathered and then written at once, so that imports are added and left out once for all of them. */
export class FileEdits {
  readonly file: ScriptFile;
  readonly out: MagicString;
  private readonly dropped = new Set<SyntaxNode>();
  private readonly made: SyntaxNode[] = [];
  private readonly imports: string[] = [];
  private readonly lines: string[] = [];
  private readonly added = new Map<SyntaxNode, string[]>();
  private readonly released = new Map<string, number>();
  private readonly held = new Set<string>();
  private readonly insideDone = new Set<number>();

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
    const already =
      [...this.added.values()].some((n) => n.includes(name)) || this.imports.some((i) => i === this.line(name, from));
    if (!already && this.file.knows(name)) return null;
    if (named) this.added.set(named, [...new Set([...(this.added.get(named) ?? []), name])]);
    else this.addNamed(name, from);
    return name;
  }

  /** A use of a name is gone; its import goes with the last one. */
  release(local: string): void {
    this.released.set(local, (this.released.get(local) ?? 0) + 1);
  }

  /** Makes a function async, once. */
  makeAsync(fn: SyntaxNode): void {
    if (fn.async === true || this.insideDone.has(fn.start)) return;
    this.insideDone.add(fn.start);
    this.out.prependLeft(fn.start, 'async ');
  }

  /** The edited text. */
  finish(): string {
    const { newline } = this.file;
    for (const [statement, names] of this.added) {
      const last = (statement.specifiers as SyntaxNode[]).at(-1)!;
      this.out.appendLeft(last.end, `, ${names.join(', ')}`);
    }
    for (const [local, times] of this.released) {
      if (!this.held.has(local) && times === this.file.references(local)?.length) this.leaveOut(local);
    }
    const anchor = this.file
      .imports()
      .filter((s) => !this.dropped.has(s))
      .at(-1);
    this.removeDropped();
    if (this.imports.length > 0) {
      const text = this.imports.join(newline);
      if (anchor) this.out.appendLeft(anchor.end, `${newline}${text}`);
      else this.out.prepend(`${text}${newline}`);
    }
    if (this.lines.length > 0) {
      const made = this.made.filter((s) => !this.dropped.has(s)).at(-1);
      const text = this.lines.join(newline);
      if (made) this.out.appendLeft(made.end, `${newline}${text}`);
      else if (anchor) this.out.appendLeft(anchor.end, `${newline}${newline}${text}`);
      else this.out.prepend(`${text}${newline}`);
    }
    return this.out.toString();
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

  private line(name: string, from: string): string {
    return `import { ${name} } from ${this.file.quoted(from)};`;
  }

  /** One statement for all names of a package. */
  private addNamed(name: string, from: string): void {
    const end = ` } from ${this.file.quoted(from)};`;
    const at = this.imports.findIndex((i) => i.startsWith('import { ') && i.endsWith(end));
    if (at < 0) this.imports.push(this.line(name, from));
    else this.imports[at] = `${this.imports[at].slice(0, -end.length)}, ${name}${end}`;
  }

  /** Leaves a name out of its import statement, or the statement with its last name. */
  private leaveOut(local: string): void {
    for (const statement of this.file.imports()) {
      const specifiers = statement.specifiers as SyntaxNode[];
      const at = specifiers.findIndex((s) => nameOf(s.local) === local);
      if (at < 0) continue;
      if (specifiers.length === 1 && !this.added.has(statement)) {
        this.drop(statement);
        return;
      }
      const others = specifiers.filter((s) => s.type === 'ImportSpecifier');
      const inList = others.indexOf(specifiers[at]);
      if (inList < 0 || others.length === 1) return;
      if (inList > 0) this.out.remove(others[inList - 1].end, others[inList].end);
      else this.out.remove(others[0].start, others[1].start);
    }
  }
}
