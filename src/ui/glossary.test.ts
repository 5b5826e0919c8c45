import fs from 'node:fs';
import path from 'node:path';
import { parseSync } from 'oxc-parser';
import { TERMS, type TermName } from './parts/terms.ts';

/** Words that mean the same as a term, and so aren't said in its place: one thing has one name everywhere. */
const NOT_SAID: Partial<Record<TermName, RegExp>> = {
  'split point': /\bsplit-points?\b|\bsplitpoints?\b|\bcut points?\b/i,
  placeholder: /\bskeletons?\b|\bspinners?\b|\ba stand-in\b|\bthe stand-in\b|\bstand-in (held|until|from)\b/i,
  'hover or focus': /\bon the approach\b|\bapproach(es|ed)?\b/i,
  'self size': /\bown weight\b/i,
  'retained size': /\bcarried( weight| size)?\b/i,
  finding: /\bsuggestions?\b|\brecommendations?\b/i,
  baseline: /\boriginal plan\b|\bas-built plan\b/i,
  interactive: /\bresponsive after\b|\bready to use\b/i,
  hint: /\bresource hints?\b/i,
  limit: /\bbudgets?\b/i,
  detach: /\blazy-load\b|\blazify\b/i,
};

/** Words that an action isn't called any more. */
const FORMER = /\bTry it\b|\bTake it\b|\bPut (it )?aside\b|\bLead me\b|\bleft to the hand\b/;

const root = import.meta.dirname;
const files = fs
  .readdirSync(root, { recursive: true, encoding: 'utf8' })
  .filter((f) => /\.tsx?$/.test(f) && !f.endsWith('.test.ts'));

interface Node {
  type: string;
  start: number;
  [field: string]: unknown;
}

/** Attributes whose values nobody reads. */
const UNREAD = /^(className|style|d|key|id|data-.*)$/;

/** What people can read in a file: text between elements, templates, and strings of more than one word. */
function saidIn(file: string): { text: string; line: number }[] {
  const code = fs.readFileSync(path.join(root, file), 'utf8');
  const said: { text: string; line: number }[] = [];
  const add = ({ start }: Node, text: string) => {
    if (text.trim() !== '') said.push({ text, line: code.slice(0, start).split('\n').length });
  };
  const visit = (node: Node): void => {
    if (node.type === 'ImportDeclaration' || node.type.startsWith('TS')) return;
    if (node.type === 'JSXAttribute' && UNREAD.test(String((node.name as Node).name))) return;
    if (node.type === 'JSXText') add(node, String(node.value));
    else if (node.type === 'Literal' && typeof node.value === 'string' && node.value.includes(' '))
      add(node, node.value);
    else if (node.type === 'TemplateLiteral')
      add(node, (node.quasis as { value: { raw: string } }[]).map((q) => q.value.raw).join('…'));
    for (const value of Object.values(node))
      for (const item of Array.isArray(value) ? value : [value]) if (isNode(item)) visit(item);
  };
  visit(parseSync(file, code).program as unknown as Node);
  return said;
}

function isNode(value: unknown): value is Node {
  return typeof value === 'object' && value !== null && typeof (value as Node).type === 'string';
}

const all = files.flatMap((file) => saidIn(file).map(({ text, line }) => ({ at: `${file}:${line}`, text })));

describe('the words of the interface', () => {
  it('are read', () => {
    expect(all.length).toBeGreaterThan(800);
    expect(all.some(({ text }) => text.includes('What is worth changing'))).toBe(true);
  });

  it.each(Object.entries(NOT_SAID))('say “%s” where that is meant', (term, others) => {
    expect(Object.keys(TERMS)).toContain(term);
    expect(all.filter(({ text }) => others.test(text)).map(({ at, text }) => `${at}: ${text.trim()}`)).toEqual([]);
  });

  it('call actions by their present names', () => {
    expect(all.filter(({ text }) => FORMER.test(text)).map(({ at, text }) => `${at}: ${text.trim()}`)).toEqual([]);
  });
});
