import { shortName } from './short-name.ts';

describe('what a module is called', () => {
  it.each([
    ['src/parts/fare-calculator.tsx', 'fare-calculator'],
    ['src/crew/page.tsx', 'crew page'],
    ['src/crew/index.ts', 'crew'],
    ['src/main.ts', 'main'],
    ['src/index.ts', 'index'],
    ['../../packages/reeds/src/index.ts', 'reeds'],
    ['src/tides.vue?style', 'tides styles'],
    ['@reeds/kit', '@reeds/kit'],
    // The entry of a package goes by the package's name, whatever its file is called.
    ['node_modules/reed-shape/src/index.js', 'reed-shape'],
    ['node_modules/reeds/build/reeds.module.js', 'reeds'],
    ['node_modules/reeds/es6/index.js', 'reeds'],
    ['node_modules/@reeds/kit/esm/index.mjs', '@reeds/kit'],
    ['node_modules/reed-dom/cjs/reed-dom-client.production.js', 'reed-dom-client'],
    ['node_modules/reeds/debounce.js', 'debounce'],
    ['../../node_modules/@reeds/kit/Button/Button.js', 'Button'],
  ])('%s → %s', (path, name) => expect(shortName(path)).toBe(name));
});
