import { nearName } from './near-name.ts';

it.each([
  ['src/board.tsx', 'src/board.tsx'],
  ['src/board.tsx:12', 'src/board.tsx:12'],
  ['../../packages/ui/src/tabs.tsx:7', 'packages/ui/src/tabs.tsx:7'],
  ['../shared/a.ts', 'shared/a.ts'],
  ['../../node_modules/d3-shape/src/index.js', 'd3-shape'],
  ['node_modules/@tides/kit/dist/index.mjs', '@tides/kit'],
  ['node_modules/date-fns/format.js:3', 'format:3'],
  ['', ''],
])('%s is named %s', (file, name) => {
  expect(nearName(file)).toBe(name);
});
