// Writes the bodies of the sample's heavy packages (examples/saltmarsh-ferries/packages/*/body).
// Seeded: the same text on every machine. The bodies stand for the weight of real libraries; what these do is in `src` beside them.
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** Minified kilobytes per module, roughly. */
const BODIES = {
  view: { reconciler: 44, scheduler: 16 },
  datelog: { calendar: 34, zones: 52 },
  formrig: { fields: 58, rules: 36, masks: 22 },
  tidewright: { axes: 62, curves: 74, marks: 68, palette: 30 },
  mapkeel: { camera: 60, glyphs: 84, layers: 98, projection: 42, shaders: 70, symbols: 66, tiles: 104 },
  paperkit: { barcode: 38, faces: 112, layout: 86, pages: 64, streams: 58, vector: 72 },
};
const WORDS =
  'anchor bearing beacon berth bilge bow buoy cable capstan chart cleat current deck draft drift fathom ferry gale gangway harbour hatch hawser helm hull keel knot landing lantern ledger locker mast mooring oar pier pilot plank quay reef rigging rudder sail shoal slip sound spar stern swell tide tiller wake wharf winch'.split(
    ' ',
  );

function random(seed) {
  let s = seed >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = Math.imul(s ^ (s >>> 15), s | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

function seedOf(text) {
  let h = 2166136261;
  for (const c of text) h = Math.imul(h ^ c.charCodeAt(0), 16777619);
  return h >>> 0;
}

function body(name, kilobytes) {
  const next = random(seedOf(name));
  const pick = (list) => list[Math.floor(next() * list.length)];
  const number = () => (next() < 0.4 ? String(Math.floor(next() * 900)) : next().toFixed(2 + Math.floor(next() * 5)));
  const compound = () => pick(WORDS) + pick(WORDS)[0].toUpperCase() + pick(WORDS).slice(1);
  const expression = (names) => {
    const a = pick(names);
    const b = pick(names);
    const forms = [
      `${a} * ${number()} + ${b}`,
      `Math.abs(${a} - ${number()}) / (1 + Math.abs(${b}))`,
      `(${a} + ${b}) % ${Math.floor(2 + next() * 97)}`,
      `Math.sqrt(Math.abs(${a} * ${b})) - ${number()}`,
      `Math.max(${a}, ${b}, ${number()})`,
      `${a} > ${number()} ? ${b} : ${a} - ${number()}`,
    ];
    return pick(forms);
  };
  const out = ['/** Generated; see examples/generate.mjs. */', 'type State = Record<string, number | string>;'];
  const functions = [];
  let size = 0;
  while (size < kilobytes * 1000) {
    const title = `${compound()}${functions.length}`;
    const names = ['from', 'to'];
    const lines = [`function ${title}(from: number, to: number, state: State): number {`];
    const count = 4 + Math.floor(next() * 9);
    for (let i = 0; i < count; i++) {
      const local = `${pick(WORDS)}${i}`;
      const kind = next();
      if (kind < 0.5) lines.push(`  const ${local} = ${expression(names)};`);
      else if (kind < 0.62) {
        lines.push(
          `  let ${local} = ${number()};`,
          `  for (let i = 0; i < ${2 + Math.floor(next() * 7)}; i++) ${local} += ${expression([...names, 'i'])};`,
        );
      } else if (kind < 0.74) {
        lines.push(
          `  let ${local} = ${expression(names)};`,
          `  if (${local} < ${number()}) ${local} = ${expression(names)};`,
          `  else state.${compound()} = ${local};`,
        );
      } else if (kind < 0.88) {
        lines.push(
          `  const ${local} = [${Array.from({ length: 3 + Math.floor(next() * 6) }, number).join(', ')}].reduce((a, b) => a + b * ${pick(names)}, 0);`,
        );
      } else {
        lines.push(
          `  const ${local} = state.${compound()} === '${pick(WORDS)} ${pick(WORDS)}' ? ${number()} : ${pick(names)};`,
        );
      }
      names.push(local);
    }
    if (functions.length > 2 && next() < 0.6)
      lines.push(`  if (from > ${number()}) return ${pick(functions)}(to, ${pick(names)}, state);`);
    lines.push(`  state.${compound()} = '${pick(WORDS)} ${pick(WORDS)} ${compound()}';`);
    lines.push(`  return ${names.slice(2).join(' + ') || 'from'};`, '}');
    const text = lines.join('\n');
    out.push(text);
    functions.push(title);
    size += text.length * 0.475;
  }
  out.push('export const kernel = {', '  run(n: number): number {', '    const state: State = {};', '    let sum = n;');
  for (const f of functions) out.push(`    sum += ${f}(sum, n, state);`);
  out.push('    return Number.isFinite(sum) ? sum * 0 : 0;', '  },', '};', '');
  return out.join('\n');
}

const STEPS = [0, 2, 4, 8, 12, 16, 24, 32, 48, 64, 96];
const SIDES = {
  pad: 'padding',
  'pad-across': 'padding-inline',
  'pad-along': 'padding-block',
  gap: 'gap',
  lift: 'margin-bottom',
  drop: 'margin-top',
  inset: 'margin-left',
  outset: 'margin-right',
};
const COLOURS =
  'fog e7ecee dawn f6d9b8 kelp 51643f gale 3c4f5c buoy b3432b shell fbf3e6 slate 68757d lamp e9b949 brine 2f6f73 rope c9a66b ember d9622b moss 7d8f4e'.split(
    ' ',
  );
const SHARES = [10, 20, 25, 30, 33, 40, 50, 60, 66, 70, 75, 80, 90, 100];
const TEXTS = { small: 13, plain: 16, large: 20, title: 28, banner: 40 };

/** Rules of a sheet of helpers, by name; `from` stands in the names of those for wide screens. */
function helpers(from) {
  const rules = [];
  const rule = (name, text) => rules.push(`.hull-${from}${name} { ${text}; }`);
  for (const [side, property] of Object.entries(SIDES))
    for (const [n, px] of STEPS.entries()) rule(`${side}-${n}`, `${property}: ${px}px`);
  for (let n = 0; n < COLOURS.length; n += 2) {
    const [name, colour] = [COLOURS[n], `#${COLOURS[n + 1]}`];
    rule(`tint-${name}`, `background: ${colour}`);
    rule(`ink-${name}`, `color: ${colour}`);
    rule(`edge-${name}`, `border: 1px solid ${colour}; border-radius: 3px`);
    rule(`glow-${name}`, `box-shadow: 0 0 0 3px ${colour}66`);
  }
  for (const share of SHARES) rule(`wide-${share}`, `flex: 0 0 ${share}%; max-width: ${share}%`);
  for (const [name, px] of Object.entries(TEXTS)) rule(`text-${name}`, `font-size: ${px}px; line-height: 1.3`);
  rule('row', 'display: flex; flex-direction: row; align-items: center');
  rule('stack', 'display: flex; flex-direction: column; align-items: stretch');
  rule('spread', 'justify-content: space-between');
  rule('centre', 'align-items: center; justify-content: center; text-align: center');
  rule('hide', 'display: none');
  return rules;
}

/** The sheet of helpers that comes with every start, of which the app uses a handful. */
function sheet() {
  const wide = [480, 640, 960, 1280, 1600].flatMap((px) => [
    `@media (min-width: ${px}px) {`,
    ...helpers(`from-${px}-`).map((r) => `  ${r}`),
    '}',
  ]);
  return ['/* Generated; see examples/generate.mjs. */', ...helpers(''), ...wide, ''].join('\n');
}

const here = path.dirname(fileURLToPath(import.meta.url));
let written = 0;

function write(folder, name, text) {
  const into = path.join(here, 'saltmarsh-ferries', 'packages', folder, 'body');
  const file = path.join(into, name);
  fs.mkdirSync(into, { recursive: true });
  if (fs.existsSync(file) && fs.readFileSync(file, 'utf8') === text) return;
  fs.writeFileSync(file, text);
  written++;
}

for (const [folder, modules] of Object.entries(BODIES))
  for (const [name, kilobytes] of Object.entries(modules))
    write(folder, `${name}.ts`, body(`${folder}/${name}`, kilobytes));
write('tokens', 'helpers.css', sheet());
console.log(written > 0 ? `sample packages: ${written} bodies written` : 'sample packages: up to date');
