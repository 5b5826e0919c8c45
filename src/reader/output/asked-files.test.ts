import { planned } from '../../core/chunks/planned.ts';
import { BASELINE } from '../../core/plan/types.ts';
import { predict } from '../../core/predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../../core/sim/conditions.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readApp } from '../read-app.ts';

afterAll(removeFolders);

const DOCUMENT = '<!doctype html><div id="root"></div><script type="module" src="/assets/main-1.js"></script>';

/** What a file of an output without maps leads to: imports between files, by name. */
function links({ modules, imports }: Snapshot): string[] {
  return imports.map((i) => `${modules[i.from].path} ${i.kind} ${modules[i.to].path}`).sort();
}

function read(files: Record<string, string>, document = DOCUMENT): Snapshot {
  return readApp(folderOf({ 'index.html': document, ...files }), { as: 'output' }).snapshot;
}

/** The files that each deferred import of the output asks for together, as the baseline has them. */
function groups(snapshot: Snapshot): Record<string, string[]> {
  const { graph } = planned(snapshot, BASELINE);
  const groupOf = (r: number) => graph.chunks.filter((c) => c.roots.includes(r)).map((c) => c.file!);
  return Object.fromEntries(
    graph.roots.flatMap(({ kind, target }, r) =>
      kind === 'split point' ? [[snapshot.modules[target[0]].path, groupOf(r).sort()]] : [],
    ),
  );
}

describe('what a build lists beside an import', () => {
  const files = {
    'assets/tide-2.js': 'import{a}from"./kit-5.js";export default a;',
    'assets/kit-5.js': 'export const a=1;',
    'assets/tide-3.css': '.tide{color:teal}',
    'assets/map-6.js': 'export const Map=1;',
    'assets/map-7.css': '.map{color:teal}',
  };

  it.each([
    ['by name', 'load(()=>import("./tide-2.js"),["assets/tide-2.js","assets/kit-5.js","assets/tide-3.css"])'],
    ['by name, behind what is taken of it', 'load(()=>import("./tide-2.js").then(e=>e.T),["assets/tide-3.css"],0)'],
    [
      'by the numbers of one list',
      'const d=(i,m=d,f=(m.f||(m.f=["assets/tide-2.js","assets/kit-5.js","assets/tide-3.css"])))=>i.map(n=>f[n]);load(()=>import("./tide-2.js"),d([0,1,2]))',
    ],
    [
      'behind the body of a function',
      'load(async()=>{const{T:e}=await import("./tide-2.js");return{default:e}},["assets/tide-3.css"])',
    ],
  ])('is asked for with it: %s', (_, code) => {
    const snapshot = read({ 'assets/main-1.js': `${code};document.body.append("lantern")`, ...files });
    expect(groups(snapshot)).toEqual({
      'assets/tide-2.js': ['assets/kit-5.js', 'assets/tide-2.js', 'assets/tide-3.css'],
    });
  });

  it('doesn’t take what stands behind another statement, or belongs to another import', () => {
    const code =
      'import("./tide-2.js");const a=1,b=["assets/map-7.css"];load(()=>import("./map-6.js"),["assets/map-7.css"])';
    expect(groups(read({ 'assets/main-1.js': code, ...files }))).toEqual({
      'assets/map-6.js': ['assets/map-6.js', 'assets/map-7.css'],
      'assets/tide-2.js': ['assets/kit-5.js', 'assets/tide-2.js'],
    });
  });

  it('takes each file that a computed address may name', () => {
    const code = `const say=l=>import(\`./words/\${l}.js\`);const data=()=>import("./towns.json",{with:{type:"json"}})`;
    const words = { 'assets/words/ga.js': 'export default 1', 'assets/words/cy.js': 'export default 2' };
    const snapshot = read({
      'assets/main-1.js': code,
      'assets/towns.json': '{"towns":[1]}',
      'assets/other.json': '{}',
      ...words,
    });
    expect(links(snapshot)).toEqual([
      'assets/main-1.js dynamic assets/towns.json',
      'assets/main-1.js dynamic assets/words/cy.js',
      'assets/main-1.js dynamic assets/words/ga.js',
    ]);
    expect(snapshot.modules.map((m) => `${m.path} ${m.kind}`)).toContain('assets/towns.json json');
    expect(snapshot.notices.filter((n) => n.kind === 'unnamed file')).toEqual([]);
  });
});

describe('a loader that fetches by number', () => {
  const runtime = [
    '(()=>{var n={};',
    'n.u=e=>e===77?"chunks/vendor.js":"chunks/"+({12:"tide"}[e]||e)+"-"+{12:"aa11",31:"bb22",40:"cc33"}[e]+".js";',
    'n.css=e=>"css/"+e+"-"+{12:"dd44"}[e]+".css";',
    'self.take=n})()',
  ].join('');
  const document =
    '<!doctype html><div id="root"></div><script src="/runtime.js"></script><script src="/main.js"></script>';
  const files = {
    'runtime.js': runtime,
    'main.js':
      'open=()=>Promise.all([n.e(77),n.e(31),n.e(12)]).then(n.bind(n,512));map=()=>Promise.all([n.e(77),n.e(40)]).then(n.bind(n,9));alone=()=>n.e(31).then(n.bind(n,31));n(40);n.d(12)',
    'chunks/vendor.js': 'self.push([[77],{1:()=>{}}])',
    'chunks/tide-aa11.js': 'self.push([[12],{512:()=>{}}])',
    'chunks/31-bb22.js': 'self.push([[31],{31:()=>{}}])',
    'chunks/40-cc33.js': 'self.push([[40],{9:()=>{}}])',
    'css/12-dd44.css': '.tide{color:teal}',
  };

  it('asks for all files of one import together, styles too', () => {
    expect(groups(read(files, document))).toEqual({
      'chunks/tide-aa11.js': ['chunks/31-bb22.js', 'chunks/tide-aa11.js', 'chunks/vendor.js', 'css/12-dd44.css'],
      'chunks/40-cc33.js': ['chunks/40-cc33.js', 'chunks/vendor.js'],
      'chunks/31-bb22.js': ['chunks/31-bb22.js'],
    });
  });

  it('gives no names that aren’t files, and none for calls that wait for nothing', () => {
    const snapshot = read({ ...files, 'main.js': 'n.e(12);n(40);n.e(99).then(x);Promise.all([f(12)])' }, document);
    expect(links(snapshot)).toEqual(
      ['main.js dynamic chunks/tide-aa11.js', 'chunks/tide-aa11.js static css/12-dd44.css'].sort(),
    );
  });
});

describe('a loader that fetches by name', () => {
  const document =
    '<!doctype html><div id="root"></div><script src="/c/runtime.js"></script><script src="/c/main.js"></script>';
  const files = {
    'c/runtime.js': 'take=t=>typeof importScripts==="function"?importScripts(t):0;',
    'c/main.js':
      'open=e=>e.v(t=>Promise.all(["c/kit-1.js","c/tide-2.js","c/tide-2.css"].map(n=>e.l(n))).then(()=>t(9)));map=e=>Promise.all(["c/kit-1.js","c/map-3.js"].map(n=>e.l(n)));sums=e=>e.f("c/worker.js",["c/kit-1.js","c/sums-4.js"]);more=e=>e.f("c/worker.js",["c/more-5.js"])',
    'c/worker.js': '!function(){let l=JSON.parse(name);importScripts.apply(self,l)}()',
    'c/kit-1.js': 'self.kit=1',
    'c/tide-2.js': 'self.tide=1',
    'c/tide-2.css': '.tide{color:teal}',
    'c/map-3.js': 'self.map=1',
    'c/sums-4.js': 'self.sums=1',
    'c/more-5.js': 'self.more=1',
  };
  const snapshot = read(files, document);

  it('asks for all files of one import together', () => {
    expect(groups(snapshot)).toEqual({
      'c/tide-2.js': ['c/kit-1.js', 'c/tide-2.css', 'c/tide-2.js'],
      'c/map-3.js': ['c/kit-1.js', 'c/map-3.js'],
    });
  });

  it('starts workers by a script that takes in others, each with its own list', () => {
    expect(snapshot.entries.map((e) => [e.realm, e.modules])).toEqual([
      ['site', ['c/runtime.js', 'c/main.js']],
      ['worker c/worker.js', ['c/worker.js', 'c/kit-1.js', 'c/sums-4.js']],
      ['worker c/worker.js 2', ['c/worker.js', 'c/more-5.js']],
    ]);
  });
});

describe('workers', () => {
  it.each([
    ['by address', 'new Worker(new URL("/assets/sums-4.js",import.meta.url),{type:"module"});import("./kit-5.js")'],
    ['by a text', 'new window.Worker("assets/sums-4.js")'],
  ])('start entries of their own: %s', (_, code) => {
    const snapshot = read({
      'assets/main-1.js': code,
      'assets/sums-4.js': 'import{a}from"./kit-5.js";self.onmessage=()=>a',
      'assets/kit-5.js': 'export const a=1;',
    });
    expect(snapshot.entries.map((e) => [e.realm, e.kind, e.modules])).toEqual([
      ['site', 'document', ['assets/main-1.js']],
      ['worker assets/sums-4.js', 'worker', ['assets/sums-4.js']],
    ]);
    expect(links(snapshot)).not.toContain('assets/main-1.js dynamic assets/sums-4.js');
    expect(snapshot.notices.filter((n) => n.kind === 'unnamed file')).toEqual([]);
  });
});

describe('addresses with variables', () => {
  const document = (address: string) => `<!doctype html><div id="root"></div><script src="${address}" defer></script>`;
  const snapshot = readApp(
    folderOf({
      'index.html': document('/chunks/app/page-1.js'),
      'birds/[id].html': document('/chunks/app/birds/%5Bid%5D/page-2.js'),
      'chunks/app/page-1.js': 'document.body.append("lantern")',
      'chunks/app/birds/[id]/page-2.js': 'document.body.append("heron")',
    }),
    { as: 'output' },
  ).snapshot;

  it('name their files, whose documents are pages with variables', () => {
    expect(snapshot.routes.map((r) => r.pattern)).toEqual(['/', '/birds/:id']);
    expect(snapshot.output!.files.map((f) => f.path)).toContain('chunks/app/birds/[id]/page-2.js');
    expect(snapshot.notices.filter((n) => n.kind === 'base' || n.kind === 'unnamed file')).toEqual([]);
  });

  it('are asked for as a path may be written', () => {
    const { timeline } = predict(snapshot, BASELINE, '/birds/:id', DEFAULT_CONDITIONS);
    expect(timeline.requests.map((r) => r.address)).toContain('/chunks/app/birds/%5Bid%5D/page-2.js');
  });
});
