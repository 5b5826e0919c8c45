// Pieces of interface that widely used packages draw by script, each of a size that pages often have: 50 points in a chart, a hundred rows in a table, a text
// of some lines in an editor. What drawing one for the first time costs is measured with them.

const POINTS = 'Array.from({ length: 50 }, (_, n) => Math.round(50 + 40 * Math.sin(n / 6)))';
const ROWS =
  "Array.from({ length: 100 }, (_, n) => ({ id: n + 1, ship: ['Wren', 'Teal', 'Heron'][n % 3], berth: (n % 9) + 1, metres: 20 + (n % 7) * 5, crew: n % 12 }))";
const LINES =
  "Array.from({ length: 30 }, (_, n) => 'const berth' + n + ' = { ship: \"Wren\", metres: ' + (20 + n) + ' };').join('\\n')";
const PROSE =
  "'<h2>Tides</h2>' + '<p>The <strong>ebb</strong> began at nine, and the ferry was <em>late</em>.</p>'.repeat(8)";
const DATED = `${POINTS}.map((v, n) => ({ at: n, level: v, wind: 100 - v }))`;

/** What a page draws with React: the elements, drawn into an element of the page. */
export const inReact = (imports, markup, more = '') => `${imports}
import { createRoot } from 'react-dom/client';
import { flushSync } from 'react-dom';
${more}
export const before = (element) => flushSync(() => createRoot(element).render(<p>once</p>));
export const mount = (element) => flushSync(() => createRoot(element).render(${markup}));
`;

/** Name of each package that draws, what else it needs, and a module that draws one piece into an element. */
export const WIDGETS = [
  [
    'chart.js',
    [],
    `import { Chart } from 'chart.js/auto';
export function mount(element) {
  const data = ${POINTS};
  new Chart(element.appendChild(document.createElement('canvas')), { type: 'line', data: { labels: data.map(String), datasets: [{ label: 'Level', data }, { label: 'Wind', data: data.map((v) => 100 - v) }] } });
}`,
  ],
  [
    'echarts',
    [],
    `import * as echarts from 'echarts';
export function mount(element) {
  const data = ${POINTS};
  echarts.init(element).setOption({ tooltip: {}, legend: {}, xAxis: { data: data.map(String) }, yAxis: {}, series: [{ name: 'Level', type: 'line', data }, { name: 'Wind', type: 'bar', data }] });
}`,
  ],
  [
    'recharts',
    [],
    inReact(
      "import { CartesianGrid, Legend, Line, LineChart, Tooltip, XAxis, YAxis } from 'recharts';",
      '<LineChart width={640} height={320} data={data}><CartesianGrid /><XAxis dataKey="at" /><YAxis /><Tooltip /><Legend /><Line dataKey="level" /><Line dataKey="wind" /></LineChart>',
      `const data = ${DATED};`,
    ),
  ],
  [
    'victory',
    [],
    inReact(
      "import { VictoryAxis, VictoryChart, VictoryLine } from 'victory';",
      '<VictoryChart><VictoryAxis /><VictoryAxis dependentAxis /><VictoryLine data={data} x="at" y="level" /><VictoryLine data={data} x="at" y="wind" /></VictoryChart>',
      `const data = ${DATED};`,
    ),
  ],
  [
    '@nivo/line',
    ['@nivo/core'],
    inReact(
      "import { Line } from '@nivo/line';",
      '<Line width={640} height={320} margin={{ left: 40, bottom: 40 }} data={data} />',
      `const data = ['level', 'wind'].map((id) => ({ id, data: ${DATED}.map((d) => ({ x: d.at, y: d[id] })) }));`,
    ),
  ],
  [
    'uplot',
    [],
    `import uPlot from 'uplot';
export function mount(element) {
  const data = ${POINTS};
  new uPlot({ width: 640, height: 320, series: [{}, { label: 'Level', stroke: 'teal' }, { label: 'Wind', stroke: 'navy' }] }, [data.map((_, n) => n), data, data.map((v) => 100 - v)], element);
}`,
  ],
  [
    'highcharts',
    [],
    `import Highcharts from 'highcharts';
export function mount(element) {
  const data = ${POINTS};
  Highcharts.chart(element, { series: [{ type: 'line', name: 'Level', data }, { type: 'line', name: 'Wind', data: data.map((v) => 100 - v) }] });
}`,
  ],
  [
    'lightweight-charts',
    [],
    `import { createChart, LineSeries } from 'lightweight-charts';
export function mount(element) {
  const chart = createChart(element, { width: 640, height: 320 });
  chart.addSeries(LineSeries).setData(${POINTS}.map((value, n) => ({ time: 1700000000 + n * 86400, value })));
}`,
  ],
  [
    'plotly.js-dist-min',
    [],
    `import Plotly from 'plotly.js-dist-min';
export function mount(element) {
  const y = ${POINTS};
  Plotly.newPlot(element, [{ y, name: 'Level' }, { y: y.map((v) => 100 - v), name: 'Wind' }], { width: 640, height: 320 });
}`,
  ],
  [
    'dygraphs',
    [],
    `import Dygraph from 'dygraphs';
export function mount(element) {
  new Dygraph(element, ${POINTS}.map((v, n) => [n, v, 100 - v]), { labels: ['At', 'Level', 'Wind'], width: 640, height: 320 });
}`,
  ],
  [
    'leaflet',
    [],
    `import L from 'leaflet';
export function mount(element) {
  const map = L.map(element).setView([54, 8], 9);
  L.tileLayer('/nothing?{z}/{x}/{y}').addTo(map);
  for (let n = 0; n < 20; n++) L.marker([54 + n / 50, 8 + (n % 5) / 10]).addTo(map).bindPopup('Berth');
}`,
  ],
  [
    'maplibre-gl',
    [],
    `import * as maplibregl from 'maplibre-gl';
export function mount(element) {
  new maplibregl.Map({ container: element, style: { version: 8, sources: {}, layers: [{ id: 'sea', type: 'background', paint: { 'background-color': '#adc' } }] }, center: [8, 54], zoom: 9 });
}`,
  ],
  [
    '@codemirror/view',
    ['codemirror', '@codemirror/lang-javascript'],
    `import { basicSetup, EditorView } from 'codemirror';
import { javascript } from '@codemirror/lang-javascript';
export function mount(element) {
  new EditorView({ doc: ${LINES}, extensions: [basicSetup, javascript()], parent: element });
}`,
  ],
  [
    'ace-builds',
    [],
    `import ace from 'ace-builds';
export function mount(element) {
  ace.edit(element).setValue(${LINES});
}`,
  ],
  [
    'prosemirror-view',
    ['prosemirror-state', 'prosemirror-schema-basic', 'prosemirror-model'],
    `import { EditorState } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { schema } from 'prosemirror-schema-basic';
import { DOMParser } from 'prosemirror-model';
export function mount(element) {
  const text = document.createElement('div');
  text.innerHTML = ${PROSE};
  new EditorView(element, { state: EditorState.create({ doc: DOMParser.fromSchema(schema).parse(text) }) });
}`,
  ],
  [
    '@tiptap/core',
    ['@tiptap/starter-kit', '@tiptap/pm'],
    `import { Editor } from '@tiptap/core';
import StarterKit from '@tiptap/starter-kit';
export function mount(element) {
  new Editor({ element, extensions: [StarterKit], content: ${PROSE} });
}`,
  ],
  [
    'quill',
    [],
    `import Quill from 'quill';
export function mount(element) {
  element.innerHTML = ${PROSE};
  new Quill(element, { theme: 'snow' });
}`,
  ],
  [
    'lexical',
    ['@lexical/rich-text'],
    `import { $createParagraphNode, $createTextNode, $getRoot, createEditor } from 'lexical';
import { registerRichText } from '@lexical/rich-text';
export function mount(element) {
  element.contentEditable = 'true';
  const editor = createEditor({ onError() {} });
  editor.setRootElement(element);
  registerRichText(editor);
  editor.update(() => {
    for (let n = 0; n < 10; n++) $getRoot().append($createParagraphNode().append($createTextNode('The ebb began at nine, and the ferry was late.')));
  });
}`,
  ],
  [
    'slate-react',
    ['slate', 'slate-dom'],
    inReact(
      "import { createEditor } from 'slate';\nimport { Editable, Slate, withReact } from 'slate-react';",
      '<Slate editor={withReact(createEditor())} initialValue={text}><Editable /></Slate>',
      "const text = Array.from({ length: 10 }, () => ({ type: 'paragraph', children: [{ text: 'The ebb began at nine, and the ferry was late.' }] }));",
    ),
  ],
  [
    'ag-grid-community',
    [],
    `import { AllCommunityModule, createGrid, ModuleRegistry } from 'ag-grid-community';
ModuleRegistry.registerModules([AllCommunityModule]);
export function mount(element) {
  createGrid(element, { rowData: ${ROWS}, columnDefs: ['id', 'ship', 'berth', 'metres', 'crew'].map((field) => ({ field })) });
}`,
  ],
  [
    'tabulator-tables',
    [],
    `import { TabulatorFull } from 'tabulator-tables';
export function mount(element) {
  new TabulatorFull(element, { height: 320, data: ${ROWS}, columns: ['id', 'ship', 'berth', 'metres', 'crew'].map((field) => ({ field, title: field })) });
}`,
  ],
  [
    'handsontable',
    [],
    `import Handsontable from 'handsontable';
export function mount(element) {
  new Handsontable(element, { data: ${ROWS}, height: 320, colHeaders: true, licenseKey: 'non-commercial-and-evaluation' });
}`,
  ],
  [
    'cytoscape',
    [],
    `import cytoscape from 'cytoscape';
export function mount(element) {
  const nodes = Array.from({ length: 30 }, (_, n) => ({ data: { id: 'n' + n } }));
  cytoscape({ container: element, elements: [...nodes, ...nodes.slice(1).map((node, n) => ({ data: { source: 'n' + (n >> 1), target: node.data.id } }))], layout: { name: 'breadthfirst' } });
}`,
  ],
  [
    'vis-network',
    ['vis-data'],
    `import { DataSet } from 'vis-data';
import { Network } from 'vis-network';
export function mount(element) {
  const nodes = Array.from({ length: 30 }, (_, id) => ({ id, label: 'Berth ' + id }));
  new Network(element, { nodes: new DataSet(nodes), edges: new DataSet(nodes.slice(1).map((node) => ({ from: node.id >> 1, to: node.id }))) }, {});
}`,
  ],
  [
    '@xyflow/react',
    [],
    inReact(
      "import { Background, Controls, ReactFlow } from '@xyflow/react';",
      '<div style={{ width: 640, height: 320 }}><ReactFlow nodes={nodes} edges={edges}><Background /><Controls /></ReactFlow></div>',
      `const nodes = Array.from({ length: 20 }, (_, n) => ({ id: String(n), position: { x: (n % 5) * 120, y: (n >> 2) * 60 }, data: { label: 'Berth ' + n } }));
const edges = nodes.slice(1).map((node, n) => ({ id: 'e' + n, source: String(n >> 1), target: node.id }));`,
    ),
  ],
  [
    'konva',
    [],
    `import Konva from 'konva';
export function mount(element) {
  const stage = new Konva.Stage({ container: element, width: 640, height: 320 });
  const layer = new Konva.Layer();
  for (let n = 0; n < 60; n++) layer.add(new Konva.Circle({ x: (n % 12) * 50, y: (n >> 3) * 40, radius: 12, fill: 'teal', draggable: true }));
  stage.add(layer);
}`,
  ],
  [
    'fabric',
    [],
    `import { Canvas, Circle } from 'fabric';
export function mount(element) {
  const canvas = new Canvas(element.appendChild(document.createElement('canvas')), { width: 640, height: 320 });
  for (let n = 0; n < 60; n++) canvas.add(new Circle({ left: (n % 12) * 50, top: (n >> 3) * 40, radius: 12, fill: 'teal' }));
}`,
  ],
  [
    'three',
    [],
    `import * as THREE from 'three';
export function mount(element) {
  const renderer = new THREE.WebGLRenderer();
  renderer.setSize(640, 320);
  element.append(renderer.domElement);
  const scene = new THREE.Scene();
  const camera = new THREE.PerspectiveCamera(50, 2, 1, 100);
  camera.position.z = 20;
  scene.add(new THREE.HemisphereLight(0xffffff, 0x444444, 2));
  for (let n = 0; n < 30; n++) {
    const mesh = new THREE.Mesh(new THREE.BoxGeometry(), new THREE.MeshStandardMaterial({ color: 0x448899 }));
    mesh.position.set((n % 6) - 3, (n >> 2) - 3, 0);
    scene.add(mesh);
  }
  renderer.render(scene, camera);
}`,
  ],
  [
    '@fullcalendar/core@6',
    ['@fullcalendar/daygrid@6'],
    `import { Calendar } from '@fullcalendar/core';
import dayGrid from '@fullcalendar/daygrid';
export function mount(element) {
  const events = Array.from({ length: 20 }, (_, n) => ({ title: 'Arrival ' + n, start: new Date(2026, 4, 1 + n) }));
  new Calendar(element, { plugins: [dayGrid], initialDate: '2026-05-01', events }).render();
}`,
  ],
  [
    'react-big-calendar',
    ['moment'],
    inReact(
      "import moment from 'moment';\nimport { Calendar, momentLocalizer } from 'react-big-calendar';",
      '<Calendar localizer={localizer} events={events} defaultDate={new Date(2026, 4, 1)} style={{ height: 500 }} />',
      `const localizer = momentLocalizer(moment);
const events = Array.from({ length: 20 }, (_, n) => ({ title: 'Arrival ' + n, start: new Date(2026, 4, 1 + n), end: new Date(2026, 4, 1 + n) }));`,
    ),
  ],
  ['react-day-picker', [], inReact("import { DayPicker } from 'react-day-picker';", '<DayPicker mode="single" />')],
  [
    'flatpickr',
    [],
    `import flatpickr from 'flatpickr';
export function mount(element) {
  flatpickr(element.appendChild(document.createElement('input')), {});
}`,
  ],
  [
    'swiper',
    [],
    `import Swiper from 'swiper';
import { Navigation, Pagination } from 'swiper/modules';
export function mount(element) {
  element.innerHTML = '<div class="swiper"><div class="swiper-wrapper">' + '<div class="swiper-slide">A berth</div>'.repeat(12) + '</div></div>';
  new Swiper(element.firstChild, { modules: [Navigation, Pagination] });
}`,
  ],
  [
    'embla-carousel',
    [],
    `import EmblaCarousel from 'embla-carousel';
export function mount(element) {
  element.innerHTML = '<div>' + '<div style="flex: 0 0 100%">A berth</div>'.repeat(12) + '</div>';
  EmblaCarousel(element);
}`,
  ],
  [
    'video.js',
    [],
    `import videojs from 'video.js';
export function mount(element) {
  videojs(element.appendChild(document.createElement('video')), { controls: true });
}`,
  ],
  [
    'gridstack',
    [],
    `import { GridStack } from 'gridstack';
export function mount(element) {
  const grid = GridStack.init({}, element);
  grid.load(Array.from({ length: 12 }, (_, n) => ({ w: 2, h: 2, x: (n % 6) * 2, y: (n >> 2) * 2, content: 'Berth' })));
}`,
  ],
];

const LOOKS = `import * as piece from './piece.jsx';
let formats = false;
const watched = (of, name) => {
  of[name] = new Proxy(of[name], {
    construct: (to, given) => { formats = true; return new to(...given); },
    apply: (to, self, given) => { formats = true; return Reflect.apply(to, self, given); },
  });
};
for (const name of ['NumberFormat', 'DateTimeFormat', 'RelativeTimeFormat', 'ListFormat', 'DisplayNames', 'Segmenter', 'Collator']) watched(Intl, name);
for (const of of [Number.prototype, Date.prototype]) watched(of, 'toLocaleString');
for (const name of ['toLocaleDateString', 'toLocaleTimeString']) watched(Date.prototype, name);
watched(String.prototype, 'localeCompare');
const element = document.body.appendChild(document.createElement('div'));
element.style.cssText = 'width: 640px; height: 320px';
await piece.mount(element);
await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done))));
globalThis.took = { formats };
`;

/**
 * The files of two pages: `main` draws a piece twice, once it has drawn something else and formatted something, and keeps how long each took; `looks` draws it once and
 * looks whether it formats numbers, dates or texts of a language.
 */
export function filesOf(name, code) {
  return {
    'package.json': JSON.stringify({ name: 'piece', dependencies: { [name]: '*' } }),
    'index.html': '<div id="root"></div><script type="module" src="/src/main.jsx"></script>',
    'src/piece.jsx': code,
    'src/looks.jsx': LOOKS,
    'src/main.jsx': `import * as piece from './piece.jsx';
/** Works as often as the page can, and adds up how long something else held it up until two frames are over: all that the thread does. */
const spin = (over) => new Promise((done) => {
  const { port1, port2 } = new MessageChannel();
  let sum = 0;
  let last = performance.now();
  port1.onmessage = () => {
    const now = performance.now();
    if (now - last > 0.25) sum += now - last;
    last = performance.now();
    if (over()) done(sum);
    else port2.postMessage(0);
  };
  port2.postMessage(0);
});
async function timed(draw) {
  const element = document.body.appendChild(document.createElement('div'));
  element.style.cssText = 'width: 640px; height: 320px';
  let frames = 0;
  const next = () => requestAnimationFrame(() => { frames++; if (frames < 3) next(); });
  await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
  next();
  const from = performance.now();
  let isDone = false;
  const drawn = Promise.resolve(draw(element)).then(() => { isDone = true; });
  const sync = performance.now() - from;
  const rest = await spin(() => isDone && frames >= 3);
  await drawn;
  return sync + rest;
}
await timed((element) => { element.textContent = 'nothing'; });
const nothing = await timed((element) => { element.textContent = 'nothing'; });
new Intl.NumberFormat('en').format(1);
new Intl.DateTimeFormat('en').format(new Date());
if (piece.before) await timed(piece.before);
const first = await timed(piece.mount);
await new Promise((done) => setTimeout(done, 1500));
const again = await timed(piece.mount);
globalThis.took = { first: first - nothing, again: Math.max(0, again - nothing), nothing, height: document.body.scrollHeight, elements: document.querySelectorAll('*').length };
`,
  };
}
