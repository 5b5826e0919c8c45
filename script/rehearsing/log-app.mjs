// An app without a framework: plain elements, with packages for data that this project has installed, and pages that come when they are asked for.
import path from 'node:path';

const MAIN = `
import './log.css';
import { scaleLinear } from 'd3-scale';
import EventEmitter from 'eventemitter3';
import { frame } from './frame.js';
const events = new EventEmitter();
const routes = [
  { path: '/', page: () => import('./pages/levels.js') },
  { path: '/changes', page: () => import('./pages/changes.js') },
];
const main = frame(document.getElementById('root'), scaleLinear([0, 10], [0, 1]));
events.on('page', ({ draw }) => draw(main));
const { page } = routes.find((r) => r.path === location.pathname) ?? routes[0];
page().then((module) => events.emit('page', module));
`;

const FRAME = `
export function frame(root, scale) {
  root.innerHTML = '<header><h1>Water log</h1><nav><a href="/">Levels</a> <a href="/changes">Changes</a></nav></header><main></main>';
  root.style.setProperty('--half', scale(5));
  return root.querySelector('main');
}
`;

const LEVELS = `
import Papa from 'papaparse';
import { line, curveBasis } from 'd3-shape';
import { chunk, sumBy } from 'es-toolkit';
const csv = 'hour,level\\n' + Array.from({ length: 400 }, (_, n) => n + ',' + (2 + Math.sin(n / 9)).toFixed(2)).join('\\n');
export function draw(main) {
  const { data } = Papa.parse(csv, { header: true, dynamicTyping: true });
  const d = line((r) => r.hour * 2, (r) => 90 - r.level * 25).curve(curveBasis)(data);
  const days = chunk(data, 24).map((day, n) => '<tr><td>' + n + '</td><td>' + (sumBy(day, (r) => r.level) / day.length).toFixed(2) + '</td></tr>');
  main.innerHTML = '<svg width="800" height="100"><path fill="none" stroke="teal" d="' + d + '"/></svg><table>' + days.join('') + '</table>';
}
`;

const CHANGES = `
import { diffWords } from 'diff';
import postcss from 'postcss';
import { parse, serialize } from 'parse5';
const before = 'low tide at six, high tide at noon, '.repeat(40);
const after = before.replaceAll('six', 'seven');
export function draw(main) {
  const words = diffWords(before, after).map((p) => (p.added ? '<ins>' + p.value + '</ins>' : p.removed ? '<del>' + p.value + '</del>' : p.value));
  const rules = postcss.parse('ins { color: teal } del { color: grey }').toString();
  main.innerHTML = serialize(parse('<style>' + rules + '</style><p>' + words.join('') + '</p>'));
}
`;

/** Its files, by path from its folder. */
export const LOG = {
  'index.html':
    '<!doctype html><html lang="en"><head><title>Water log</title></head><body><div id="root"></div><script type="module" src="/src/main.js"></script></body></html>',
  'package.json': '{ "name": "water-log", "private": true, "type": "module" }',
  'src/main.js': MAIN,
  'src/frame.js': FRAME,
  'src/log.css': 'body { margin: 0; font: 15px sans-serif } header { padding: 8px; background: #16404d; color: #fff }',
  'src/pages/levels.js': LEVELS,
  'src/pages/changes.js': CHANGES,
};

/** Where it has to lie so that packages are found: beside those of this project. */
export const LOG_FOLDER = path.resolve('script', 'rehearsing', '.made-log');
