import MagicString from 'magic-string';
import postcss, { type AtRule, type ChildNode, type Container, type Rule } from 'postcss';
import type { StyleRule } from '../core/snapshot/types.ts';
import { isOuter } from '../reader/unused-rules.ts';

/** Blocks that mean nothing once they are empty; an empty layer still has its place in the order of layers. */
const GOES_WHEN_EMPTY = /^(media|supports|container)$/;

/** Edits of one style sheet: whole rules are left out, with the blocks and comments that are there for them alone. */
export class SheetEdits {
  private readonly root: postcss.Root;
  private readonly out: MagicString;
  private readonly going = new Set<ChildNode>();

  /** Throws what the parser says of a sheet that can't be read. */
  constructor(readonly text: string) {
    this.root = postcss.parse(text);
    this.out = new MagicString(text);
  }

  /** Leaves out the rules that are named by line and selector. Where one of them doesn't stand there, none goes; gives those. */
  leaveOut(rules: readonly StyleRule[]): StyleRule[] {
    const there = new Map<string, Rule>();
    this.root.walkRules((rule) => {
      if (isOuter(rule)) there.set(keyOf(rule.source?.start?.line ?? 1, rule.selector), rule);
    });
    const missing = rules.filter((r) => !there.has(keyOf(r.line, r.selector)));
    if (missing.length > 0) return missing;
    for (const { line, selector } of rules) this.goes(there.get(keyOf(line, selector))!);
    return [];
  }

  finish(): string {
    for (const node of [...this.going]) this.addComments(node);
    const containers = new Set([...this.going].map((node) => node.parent as Container<ChildNode>));
    for (const container of containers)
      if (!this.going.has(container as unknown as ChildNode)) this.removeRuns(container.nodes ?? []);
    return this.out.toString();
  }

  /** With the blocks around it in which nothing is left. */
  private goes(node: ChildNode): void {
    this.going.add(node);
    const around = node.parent as AtRule | undefined;
    if (around?.type !== 'atrule' || !GOES_WHEN_EMPTY.test(around.name)) return;
    if (around.nodes?.every((n) => n.type === 'comment' || this.going.has(n))) this.goes(around);
  }

  /** The comments right above go too where all goes that they can be about, up to the next empty line. */
  private addComments(node: ChildNode): void {
    for (let next = node.next(); next && !beginsParagraph(next); next = next.next()) if (!this.going.has(next)) return;
    for (let at = node; !beginsParagraph(at); ) {
      const before = at.prev();
      if (!before || (before.type !== 'comment' && !this.going.has(before))) return;
      this.going.add(before);
      at = before;
    }
  }

  /** Takes out neighbours that go as one piece, so that one empty line stays between what is left. */
  private removeRuns(nodes: readonly ChildNode[]): void {
    for (let first = 0; first < nodes.length; first++) {
      if (!this.going.has(nodes[first])) continue;
      let last = first;
      while (last + 1 < nodes.length && this.going.has(nodes[last + 1])) last++;
      const next = nodes[last + 1];
      const run = nodes.slice(first, last + 1);
      // What comes after keeps the white space of what stood first, or the empty line of one that goes.
      const lends = first === 0 ? run[0] : next && !beginsParagraph(next) ? run.find(beginsParagraph) : undefined;
      if (next && lends) {
        this.remove(gapBefore(run[0]), gapBefore(lends));
        this.remove(startOf(lends), startOf(next));
      } else this.remove(gapBefore(run[0]), run.at(-1)!.source!.end!.offset);
      first = last;
    }
  }

  private remove(from: number, to: number): void {
    if (to > from) this.out.remove(from, to);
  }
}

function startOf(node: ChildNode): number {
  return node.source!.start!.offset;
}

/** Where the white space before it begins. */
function gapBefore(node: ChildNode): number {
  return startOf(node) - (node.raws.before ?? '').length;
}

export function isSheet(path: string): boolean {
  return path.endsWith('.css');
}

export function isReadableSheet(text: string): boolean {
  try {
    postcss.parse(text);
    return true;
  } catch {
    return false;
  }
}

function keyOf(line: number, selector: string): string {
  return `${line} ${selector.replace(/\s+/g, ' ')}`;
}

/** Whether an empty line stands before it. */
function beginsParagraph(node: ChildNode): boolean {
  return /\n[ \t]*\r?\n/.test(node.raws.before ?? '');
}
