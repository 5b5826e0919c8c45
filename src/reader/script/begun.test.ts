import { parseScript } from './parse-script.ts';

const begun = (code: string) =>
  parseScript('src/x.jsx', code, { jsxImportSource: 'react' }).imports.find((i) => i.kind === 'dynamic')?.begun ?? null;
const BEGIN = "const begin = () => void import('./map').catch(() => {});";

describe('an import that code begins by itself', () => {
  it.each([
    ["requestIdleCallback(() => import('./map'));", { on: 'idle' }],
    [
      `${BEGIN} if ('requestIdleCallback' in window) requestIdleCallback(begin); else setTimeout(begin, 200);`,
      { on: 'idle' },
    ],
    [`${BEGIN} setTimeout(begin, 1500);`, { on: 'after', ms: 1500 }],
    [`${BEGIN} requestAnimationFrame(() => setTimeout(begin));`, { on: 'after first paint' }],
    [`${BEGIN} if (matchMedia('(min-width: 900px)').matches) begin();`, { on: 'media', minWidth: 900 }],
    ["function X() { useEffect(() => { requestIdleCallback(() => import('./map')); }, []); }", { on: 'idle' }],
    ["export const X = () => <a onMouseEnter={() => import('./map')}>map</a>;", { on: 'approach' }],
    ["export const X = () => <a onClick={() => import('./map')}>map</a>;", null],
    ["export const X = () => <a onClick={() => { requestIdleCallback(() => import('./map')); }}>map</a>;", null],
    ["export const later = () => requestIdleCallback(() => import('./map'));", null],
    ["addEventListener('load', () => requestIdleCallback(() => import('./map')));", { on: 'idle' }],
    ["bell.addEventListener('click', () => requestIdleCallback(() => import('./map')));", null],
    ["const Map = lazy(() => import('./map'));", null],
    ["import('./map');", null],
    [`${BEGIN} setTimeout(begin, wait);`, null],
    [`${BEGIN} if (matchMedia(query).matches) begin();`, null],
  ])('%s', (code, expected) => {
    expect(begun(code)).toEqual(expected);
  });
});
