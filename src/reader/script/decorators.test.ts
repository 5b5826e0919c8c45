import vm from 'node:vm';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';
import { compilingOf } from './compiling.ts';

afterAll(removeFolders);

const HERE = { 'index.html': '<script type="module" src="/main.ts"></script>' };

/** What a script of an app leaves under `globalThis.left` once it ran as it ships. */
function left(text: string, more: Record<string, string> = {}): unknown {
  const { texts, snapshot } = readSource(folderOf({ ...HERE, 'main.ts': text, ...more }));
  expect(snapshot.failed).toEqual([]);
  expect(snapshot.unresolved).toEqual([]);
  const context = vm.createContext({});
  vm.runInContext(texts['main.ts'].replace(/\bexport\s*\{[^}]*\};?/g, ''), context);
  return JSON.parse(JSON.stringify((context as { left: unknown }).left));
}

const OLD = { 'tsconfig.json': '{ "compilerOptions": { "experimentalDecorators": true, "target": "ES2020", } }' };

describe('decorators', () => {
  it('of before the standard see classes, members and parameters, and fields are assigned', () => {
    const text = `const seen: string[] = [];
const noted = (name: string) => (...given: any[]) => { seen.push(name + ' ' + given.length); };
function bounded(target: any, key: string) { Object.defineProperty(target, key, { set(v) { this['_' + key] = Math.min(9, v); }, get() { return this['_' + key]; } }); }
@noted('class')
class Tide { @bounded height = 20; @bounded depth!: number; @noted('method') rise(@noted('parameter') by: number) { return this.height + by; } }
const tide = new Tide();
globalThis.left = { seen, height: tide.height, rise: tide.rise(1), own: Object.keys(tide) };`;
    expect(left(text, OLD)).toEqual({
      ...{ seen: ['parameter 3', 'method 3', 'class 1'], height: 9, rise: 10 },
      own: ['_height'],
    });
  });

  it('of the standard are told what they decorate', () => {
    const text = `const seen: string[] = [];
function noted(_: unknown, { kind, name }: { kind: string; name?: unknown }): any { seen.push(kind === 'class' ? kind : kind + ' ' + String(name)); }
@noted
class Tide { @noted height = 20; @noted accessor depth = 2; @noted rise(by: number) { return this.height + by; } static #count = 1; @noted static of() { return Tide.#count; } }
globalThis.left = { seen: seen.sort(), rise: new Tide().rise(1), of: Tide.of() };`;
    expect(left(text)).toEqual({
      seen: ['accessor depth', 'class', 'field height', 'method of', 'method rise'],
      ...{ rise: 21, of: 1 },
    });
  });

  it('are nothing that only looks like them', () => {
    const text =
      "const sheet = `\\n@media print {}`;\nclass A { at = '@home'; }\nglobalThis.left = [sheet, new A().at];";
    expect(left(text)).toEqual(['\n@media print {}', '@home']);
  });
});

describe('how an app is compiled', () => {
  const said = (files: Record<string, string>) => compilingOf(folderOf(files), {});

  it.each<[string, Record<string, string>, object]>([
    ['nothing is said', {}, { jsxImportSource: 'react' }],
    [
      'it is said, with comments',
      { 'tsconfig.json': '{ // here\n "compilerOptions": { "jsxImportSource": "kit", }, }' },
      { jsxImportSource: 'kit' },
    ],
    [
      'what it builds on says',
      { 'tsconfig.json': '{ "extends": "./base" }', 'base.json': OLD['tsconfig.json'] },
      { oldDecorators: true, assignsFields: true },
    ],
    [
      'what it refers to says',
      {
        'tsconfig.json': '{ "files": [], "references": [{ "path": "./tsconfig.app.json" }] }',
        'tsconfig.app.json': '{ "compilerOptions": { "jsxImportSource": "preact" } }',
      },
      { jsxImportSource: 'preact' },
    ],
    [
      'a package says',
      {
        'tsconfig.json': '{ "extends": "@kit/config/base.json" }',
        'node_modules/@kit/config/base.json': '{ "compilerOptions": { "useDefineForClassFields": false } }',
      },
      { assignsFields: true },
    ],
    [
      'its own word counts before',
      {
        'tsconfig.json': '{ "extends": "./base.json", "compilerOptions": { "target": "ES2022" } }',
        'base.json': OLD['tsconfig.json'],
      },
      { oldDecorators: true },
    ],
    ['it builds on itself', { 'tsconfig.json': '{ "extends": "./tsconfig.json" }' }, { jsxImportSource: 'react' }],
    [
      'another compiler says',
      { '.babelrc': '{ "plugins": [["@babel/plugin-proposal-decorators", { "legacy": true }]] }' },
      { oldDecorators: true },
    ],
    [
      'another compiler says otherwise',
      { '.babelrc': '{ "plugins": [["@babel/plugin-proposal-decorators", { "version": "2023-11" }]] }' },
      { jsxImportSource: 'react' },
    ],
  ])('%s', (_, files, expected) => {
    expect(said(files)).toEqual({ jsxImportSource: 'react', ...expected });
  });

  it('what lies around the app counts where it may be read', () => {
    const root = folderOf({ 'base.json': OLD['tsconfig.json'], 'app/tsconfig.json': '{ "extends": "../base.json" }' });
    expect(compilingOf(`${root}/app`, {}, root)).toMatchObject({ oldDecorators: true });
    expect(compilingOf(`${root}/app`, {})).not.toHaveProperty('oldDecorators');
  });
});
