import { parseScript } from './parse-script.ts';

function saidIn(code: string) {
  const { imports, unclear } = parseScript('a.ts', code, { jsxImportSource: 'react' });
  const [found] = imports;
  return found ? { named: found.named, ahead: found.ahead } : unclear[0].reason;
}

describe('comments in a deferred import', () => {
  it.each([
    ['import(/* kitChunkName: "tide" */ "./tide")', { named: 'tide' }],
    ["import(/* kitChunkName: 'tide-map', kitPrefetch: true */ './tide')", { named: 'tide-map', ahead: 'prefetch' }],
    ['import(\n// kitPrefetch: true\n"./tide")', { ahead: 'prefetch' }],
    ['import(/* kitChunkName: "tide" */ /* kitPreload: 1 */ "./tide")', { named: 'tide', ahead: 'preload' }],
    ['import("./tide" /* kitPrefetch: -2 */)', { ahead: 'prefetch' }],
    ['import(/* kitPrefetch: false */ "./tide")', {}],
    ['import(/* kitChunkName: "words-[request]" */ "./tide")', {}],
    ['import(/* the tide, in a chunk of its own */ "./tide")', {}],
    ['import(/* kitIgnore: false */ "./tide")', {}],
    ['import(/* kitIgnore: true */ "./tide")', 'a comment leaves it to the browser'],
    ['import(/* @kit-ignore */ "./tide")', {}],
    ['import(/* @kit-ignore */ address)', 'a comment leaves it to the browser'],
  ])('%s', (code, expected) => {
    expect(saidIn(`const load = () => ${code};`)).toEqual(
      typeof expected === 'string' ? expected : { named: undefined, ahead: undefined, ...expected },
    );
  });
});
