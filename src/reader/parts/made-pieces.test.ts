import { sketch } from '../../test-support/snapshots.ts';
import { FunctionsOf } from '../runs/functions-of.ts';
import { addMadePieces } from './made-pieces.ts';

/** What modules make, by path: `page`, `helper` and `card` are the app's; a chart and what leads to it belong to packages. */
function made(texts: Record<string, string>): Record<string, string[]> {
  const imports = (text: string) => [...text.matchAll(/from '([^']+)'/g)].map((m) => m[1]);
  const own = Object.entries(texts).map(([path, text]) => [path, { imports: imports(text) }] as const);
  const snapshot = sketch({
    ...Object.fromEntries(own),
    wrapper: { imports: ['chart.js'], package: 'wrapper' },
    'chart.js': { imports: ['colours'], package: 'chart.js' },
    colours: { package: 'colours' },
  });
  addMadePieces(snapshot, new FunctionsOf(texts));
  return Object.fromEntries(
    snapshot.modules.flatMap(({ path, makes }) => (makes ? [[path, makes.map((m) => snapshot.modules[m].path)]] : [])),
  );
}
const CHART = "import { Chart } from 'chart.js';\n";

describe('what functions have packages draw', () => {
  it.each<[string, string]>([
    ['in an effect', 'export function Page() { useEffect(() => { new Chart(ref.current); }, []); }'],
    ['in a method', 'export class Page { connectedCallback() { this.chart = new Chart(this); } }'],
    ['by a member of the package', 'export const mount = (el) => Chart.make(el).draw();'],
    ['after an answer', 'export async function mount(el) { const d = await get(); return new Chart(el, d); }'],
    ['beside a handler', 'const other = { onClick: shut }; export const mount = (el) => new Chart(el);'],
    [
      'in a function that has the name of a handler elsewhere',
      'export const mount = (el) => new Chart(el); export function Page(mount) { return { onClick: mount }; }',
    ],
    ['beside something nearer of the same name', 'export const f = (all) => { all.map((Chart) => 1); new Chart(); };'],
  ])('%s', (_, text) => {
    expect(made({ page: CHART + text })).toEqual({ page: ['chart.js'] });
  });

  it.each<[string, string]>([
    ['while the module runs', 'Chart.register(line); export const Page = () => null;'],
    ['to answer an act', "export const Page = () => jsx('button', { onClick: () => new Chart(ref.current) });"],
    [
      'by a named handler',
      "function open() { new Chart(el); }\nexport const Page = () => jsx('p', { onClick: open });",
    ],
    [
      'by a handler that is handed through',
      "export const Page = () => { const open = useCallback(() => { new Chart(el); }, []); return jsx('p', { onClick: open }); };",
    ],
    ['by a listener', "export const mount = (el) => el.addEventListener('click', () => new Chart(el));"],
    ['by a name of its own', 'export const mount = (el) => { class Other {} return new Other(el); };'],
    ['where a name means something nearer', 'export const f = (all) => all.map((Chart) => Chart.make());'],
    ['where a block declares the name', 'export function f() { { const { a: Chart } = kit; new Chart(); } }'],
    ['where the function has it as a variable', 'export function f() { if (on) { var Chart = kit; } new Chart(); }'],
    ['where it is what was thrown', 'export function f() { try { go(); } catch (Chart) { Chart.make(); } }'],
    ['where a loop has it', 'export function f(all) { for (const Chart of all) Chart.make(); }'],
  ])('nothing %s', (_, text) => {
    expect(made({ page: CHART + text })).toEqual({});
  });

  it('is found through a wrapper of another package, and nothing below the package itself', () => {
    expect(made({ page: "import { useChart } from 'wrapper';\nexport const Page = () => useChart();" })).toEqual({
      page: ['wrapper'],
    });
    expect(made({ page: "import { mix } from 'colours';\nexport const Page = () => mix();" })).toEqual({});
  });

  it('is found through functions of other modules, in whatever order, and stands a circle', () => {
    const texts = {
      page: "import { mount } from 'helper';\nexport const Page = () => useEffect(() => mount(el));",
      card: "import { mount } from 'helper';\nexport const Card = () => jsx('p', { onClick: () => mount(el) });",
      helper: `${CHART}import { Page } from 'page';\nexport function mount(el) { return new Chart(el, Page()); }`,
    };
    expect(made(texts)).toEqual({ page: ['helper'], helper: ['page', 'chart.js'] });
  });
});
