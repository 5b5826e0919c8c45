import path from 'node:path';
import { configFiles } from './config-files.ts';
import { textIfThere } from './folder-files.ts';
import { nestsTooDeep } from './nesting.ts';
import { parse } from './script/parse.ts';
import { constantText, isNode, nameOf, type SyntaxNode, walk } from './syntax.ts';

/**
 * Names that configuration files at the top of an app give to its folders: `alias: { '@': path.resolve(__dirname, 'src') }`, or a list of
 * `{ find, replacement }`. The files are read and never run: a value is the path that its constants make up, and one without constants is
 * left aside.
 */
export function configuredAliases(root: string): Map<string, string> {
  const aliases = new Map<string, string>();
  for (const name of configFiles(root)) {
    const text = textIfThere(root, name);
    if (text === null || !text.includes('alias') || nestsTooDeep(text)) continue;
    const program = parse(name, text, { lang: 'ts' }).program();
    walk(program, (node) => {
      if (node.type !== 'Property' || nameOf(node.key) !== 'alias' || !isNode(node.value)) return;
      for (const [alias, folder] of pairsOf(node.value)) if (!aliases.has(alias)) aliases.set(alias, folder);
    });
  }
  for (const name of ['tsconfig.json', 'jsconfig.json'])
    for (const [alias, folder] of pathsOf(textIfThere(root, name))) if (!aliases.has(alias)) aliases.set(alias, folder);
  return aliases;
}

/** `paths` of a TypeScript configuration, which the resolver can't use where it builds on a file that a tool only writes later. */
function pathsOf(text: string | null): [alias: string, folder: string][] {
  if (text === null || nestsTooDeep(text)) return [];
  // Comments and commas at the end are allowed there, as in a script.
  const program = parse('config.js', `(${text}\n)`).program();
  const found: [string, string][] = [];
  let base = '.';
  walk(program, (node) => {
    if (node.type !== 'Property' || !isNode(node.value)) return;
    if (nameOf(node.key) === 'baseUrl') base = constantText(node.value) ?? base;
    if (nameOf(node.key) !== 'paths' || node.value.type !== 'ObjectExpression') return;
    for (const { key, value } of node.value.properties as SyntaxNode[]) {
      const first =
        isNode(value) && value.type === 'ArrayExpression' ? constantText((value.elements as unknown[])[0]) : null;
      const alias = nameOf(key);
      if (alias !== null && first !== null) found.push([alias.replace(/\/\*$/, ''), first.replace(/\/\*$/, '')]);
    }
  });
  return found.map(([alias, folder]) => [alias, path.posix.join(base, folder)]);
}

function pairsOf(value: SyntaxNode): [alias: string, folder: string][] {
  if (value.type === 'ObjectExpression')
    return (value.properties as SyntaxNode[]).flatMap(({ key, value: folder }) => pairOf(nameOf(key), folder));
  if (value.type !== 'ArrayExpression') return [];
  return (value.elements as unknown[]).flatMap((item) => {
    if (!isNode(item) || item.type !== 'ObjectExpression') return [];
    const field = (name: string) => (item.properties as SyntaxNode[]).find((p) => nameOf(p.key) === name)?.value;
    return pairOf(constantText(field('find')), field('replacement'));
  });
}

function pairOf(alias: string | null, folder: unknown): [string, string][] {
  if (alias === null || !isNode(folder)) return [];
  const pieces: string[] = [];
  walk(folder, (node, above) => {
    const text = constantText(node);
    const names = above.some((n) => n.type === 'CallExpression' && nameOf(n.callee) === 'require');
    if (text !== null && !names) pieces.push(text);
  });
  const joined = path.posix.join(...pieces.map((p) => p.replace(/^\/+(?=.)/, '')));
  // A package under another name stays with packages.
  const isFolder = pieces.length > 0 && (folder.type !== 'Literal' || /^[./]/.test(pieces[0]));
  return isFolder && !joined.startsWith('..')
    ? [[alias.replace(/\/\*?$/, ''), joined.replace(/\/\*?$/, '') || '.']]
    : [];
}
