import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../script/browser.mjs';
import type { Decision } from '../src/core/plan/types.ts';
import { readSource } from '../src/reader/read-source.ts';
import { AssembledApp } from './assembled-app.ts';

/** Files that are assembled of a reading do in a browser what the app does. */
let browser: Browser;
beforeAll(async () => {
  browser = await launchBrowser();
});
afterAll(() => browser.close());

async function opened(address: string, look: (page: Page) => Promise<void>): Promise<void> {
  const page = await browser.newPage();
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(String(error.stack)));
  await page.goto(address);
  await look(page);
  expect(errors).toEqual([]);
  await page.close();
}

const SAMPLE = path.resolve('examples/saltmarsh-ferries');
const PLANS: [string, Decision[]][] = [
  ['as built', []],
  ['small files joined', [{ kind: 'floor', bytes: 60_000 }]],
  ['each module a file', [{ kind: 'grain' }]],
  [
    'few files, small ones copied',
    [
      { kind: 'ceiling', requests: 2 },
      { kind: 'copy', below: 20_000 },
    ],
  ],
  ['sheets in script', [{ kind: 'style in script', match: { path: '*.css' } }]],
];

describe('the sample', () => {
  it.each(PLANS)('draws every page, %s', async (_, decisions) => {
    const app = await AssembledApp.start(SAMPLE, readSource(SAMPLE), decisions);
    const text = async (page: Page, words: string) => {
      await page.getByText(words, { exact: false }).first().waitFor();
    };
    await opened(`${app.address}/`, async (page) => {
      await text(page, 'Harbour webcams');
      await text(page, 'Langmarsh');
    });
    await opened(`${app.address}/timetable`, async (page) => {
      await text(page, 'Wind fresh');
      await page.locator('svg polyline').waitFor({ state: 'attached' });
      await page.getByText('Price a crossing').click();
      await page.locator('form.fares').waitFor();
    });
    await opened(`${app.address}/harbour`, async (page) => {
      await page.locator('canvas').waitFor();
      const drawn = () => page.locator('canvas').evaluate((c: HTMLCanvasElement) => c.toDataURL().length);
      expect(await drawn()).toBeGreaterThan(5000);
      const [colour] = await page
        .locator('.masthead')
        .evaluateAll((all) => all.map((e) => getComputedStyle(e).backgroundColor));
      expect(colour).toBe('rgb(22, 64, 77)');
    });
    await opened(`${app.address}/book`, async (page) => {
      for (let step = 0; step < 3; step++) await page.getByText('Next', { exact: true }).click();
      await page.locator('input[name=card]').waitFor();
    });
    app.stop();
  });
});

/** What an app computes with packages that are really used: the same in Node, module by module. */
const ANSWERS = `
import { scaleLinear, scaleTime } from 'd3-scale';
import { line, curveBasis } from 'd3-shape';
import { interpolateRgb } from 'd3-interpolate';
import { timeFormat } from 'd3-time-format';
import Papa from 'papaparse';
import { createTwoFilesPatch, diffWords } from 'diff';
import { gzipSync, gunzipSync, strToU8, strFromU8 } from 'fflate';
import { parse, serialize } from 'parse5';
import postcss from 'postcss';
import selectors from 'postcss-selector-parser';
import MagicString from 'magic-string';
import { produce } from 'immer';
import { createStore } from 'zustand/vanilla';
import { configureStore, createSlice } from '@reduxjs/toolkit';
import { createSelector } from 'reselect';
import clsx from 'clsx';
import * as toolkit from 'es-toolkit';
import EventEmitter from 'eventemitter3';
import Decimal from 'decimal.js-light';
import 'reflect-metadata';
import { validateSync, ValidateIf, IsInt } from 'class-validator';
import { plainToInstance } from 'class-transformer';
import { writable, derived } from 'svelte/store';
import fc from 'fast-check';
import React from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { Anchor, Ship } from 'lucide-react';

export function answers() {
  const emitter = new EventEmitter();
  const heard = [];
  emitter.on('x', (v) => heard.push(v));
  emitter.emit('x', 3);
  const slice = createSlice({ name: 's', initialState: { n: 1 }, reducers: { add: (s, { payload }) => { s.n += payload; } } });
  const store = configureStore({ reducer: slice.reducer });
  store.dispatch(slice.actions.add(4));
  const bear = createStore((set) => ({ n: 1, more: () => set((s) => ({ n: s.n + 1 })) }));
  bear.getState().more();
  const cell = writable(2);
  let double = 0;
  derived(cell, (n) => n * 2).subscribe((n) => { double = n; });
  cell.set(8);
  class Form {}
  IsInt()(Form.prototype, 'age');
  ValidateIf(() => true)(Form.prototype, 'age');
  const text = new MagicString('const a = 1');
  text.overwrite(6, 7, 'b').append(';');
  const scale = scaleLinear([0, 10], [0, 640]);
  return {
    scale: [scale(3), scale.ticks(4), scaleTime([new Date(0), new Date(1e9)], [0, 1])(new Date(5e8))],
    line: line().curve(curveBasis)([[0, 0], [10, 4], [20, 0]]),
    colour: interpolateRgb('red', 'blue')(0.25),
    time: timeFormat('%Y-%m-%d')(new Date(2020, 1, 3)),
    table: Papa.parse('a,b\\n1,"2,3"', { header: true }).data,
    patch: createTwoFilesPatch('a', 'b', 'x\\ny\\n', 'x\\nz\\n'),
    words: diffWords('low tide', 'high tide').length,
    zipped: strFromU8(gunzipSync(gzipSync(strToU8('tide '.repeat(50))))).length,
    html: serialize(parse('<p>a<p>b')),
    css: postcss([]).process('a{b:c}', { from: undefined }).root.toString(),
    selector: selectors((root) => root.walkClasses((c) => { c.value += 'x'; })).processSync('.a > .b'),
    magic: text.toString(),
    produced: produce({ list: [1] }, (d) => { d.list.push(2); }),
    store: [store.getState(), bear.getState().n, double],
    selected: createSelector([(s) => s.a], (a) => a * 2)({ a: 4 }),
    names: clsx('a', { b: true, c: false }, ['d']),
    chunked: [toolkit.chunk([1, 2, 3], 2), toolkit.kebabCase('lowTide')],
    heard,
    decimal: new Decimal('0.1').plus('0.2').toString(),
    invalid: validateSync(plainToInstance(Form, { age: 1.5 })).map((e) => e.constraints),
    drawn: fc.sample(fc.tuple(fc.nat(), fc.string()), { seed: 7, numRuns: 3 }),
    markup: renderToStaticMarkup(React.createElement('p', { className: 'a' }, React.createElement(Anchor, { size: 12 }), React.createElement(Ship))),
  };
}
`;

describe('workers', () => {
  const folder = fs.mkdtempSync(path.resolve('e2e', '.made-'));
  afterAll(() => fs.rmSync(folder, { recursive: true, force: true }));

  it.each<[string, Decision[]]>([
    ['as built', []],
    ['each module a file', [{ kind: 'grain' }]],
  ])('run beside the page with files of their own and answer it, %s', async (_, decisions) => {
    const files = {
      'package.json': '{ "name": "made", "private": true }',
      'index.html': '<!doctype html><body><script type="module" src="/main.js"></script>',
      'main.js': `
        import { double } from './kit.js';
        import Imported from './imported.js?worker';
        window.heard = [double(1)];
        for (const worker of [new Worker(new URL('./beside.js', import.meta.url), { type: 'module' }), new Imported()]) {
          worker.onmessage = ({ data }) => window.heard.push(data);
          worker.postMessage(4);
        }`,
      'beside.js': `
        import { double } from './kit.js';
        self.onmessage = async ({ data }) => postMessage((await import('./later.js')).later(double(data)));`,
      'imported.js':
        "import { double } from './kit.js';\nself.onmessage = ({ data }) => postMessage(double(data) + 1);",
      'later.js': 'export const later = (n) => String(n).replace(/^/, "later ");',
      'kit.js': 'export const double = (n) => 2 * n;',
    };
    for (const [file, text] of Object.entries(files)) fs.writeFileSync(path.join(folder, file), text);
    const app = await AssembledApp.start(folder, readSource(folder), decisions);
    await opened(app.address, async (page) => {
      await page.waitForFunction(() => (window as unknown as { heard?: unknown[] }).heard?.length === 3);
      const heard = await page.evaluate(() => (window as unknown as { heard: unknown[] }).heard);
      expect(heard.map(String).sort()).toEqual(['2', '9', 'later 8']);
    });
    app.stop();
  });
});

describe('real packages', () => {
  const folder = fs.mkdtempSync(path.resolve('e2e', '.made-'));
  afterAll(() => fs.rmSync(folder, { recursive: true, force: true }));

  it('answer as they do module by module', async () => {
    fs.writeFileSync(path.join(folder, 'package.json'), '{ "name": "made", "private": true, "type": "module" }');
    fs.writeFileSync(path.join(folder, 'answers.js'), ANSWERS);
    fs.writeFileSync(
      path.join(folder, 'main.js'),
      "import { answers } from './answers.js';\nwindow.answers = JSON.stringify(answers());\n",
    );
    fs.writeFileSync(
      path.join(folder, 'index.html'),
      '<!doctype html><body><script type="module" src="/main.js"></script>',
    );
    const told = execFileSync(
      process.execPath,
      [
        '--input-type=module',
        '-e',
        "const { answers } = await import('./answers.js'); console.log(JSON.stringify(answers()));",
      ],
      { cwd: folder, encoding: 'utf8', env: { ...process.env, NODE_ENV: 'production' } },
    );
    const reading = readSource(folder, { workspace: path.resolve('.') });
    const app = await AssembledApp.start(folder, reading);
    await opened(app.address, async (page) => {
      const found = await page.waitForFunction(() => (window as unknown as { answers?: string }).answers);
      expect(JSON.parse((await found.jsonValue())!)).toEqual(JSON.parse(told));
    });
    app.stop();
  });
});
