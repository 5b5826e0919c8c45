import { startsOf } from '../core/inventory/starts.ts';
import { BASELINE } from '../core/plan/types.ts';
import { folderOf } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';

const LAYOUT = { 'app/layout.tsx': 'export default ({ children }) => children;' };

/** What each landing has at its start of an app whose pages are drawn on the server, by pattern. */
function starts(files: Record<string, string>): Record<string, string[]> {
  const { snapshot } = readSource(folderOf({ ...LAYOUT, ...files }));
  return Object.fromEntries(
    startsOf(snapshot, BASELINE).starts.map(({ route, modules }) => [
      route.pattern,
      [...modules]
        .map((m) => snapshot.modules[m])
        .filter((m) => m.bytes.minified > 0)
        .map((m) => m.path),
    ]),
  );
}

const code = (name: string) =>
  `export const ${name} = (n) => 'a text of ${name} that is long enough to be weighed' + n;`;

describe('what pages on the server send', () => {
  it('isn’t what they use themselves, though the browser gets it elsewhere', () => {
    const found = starts({
      'app/page.tsx':
        "import { words } from '../lib/words';\nimport { Later } from './later';\nexport default () => [words(1), Later];",
      'app/later.tsx': "'use client';\nexport const Later = () => import('./panel');",
      'app/panel.tsx': "import { words } from '../lib/words';\nexport default () => words(2);",
      'lib/words.ts': code('words'),
    });
    expect(found['/']).toEqual(['app/later.tsx']);
  });

  it('isn’t what a worker runs as well', () => {
    const found = starts({
      'app/page.tsx':
        "import { sum } from '../lib/sum';\nimport { Board } from './board';\nexport default () => [sum(1), Board];",
      'app/board.tsx':
        "'use client';\nexport const Board = () => new Worker(new URL('./sums.worker.ts', import.meta.url));",
      'app/sums.worker.ts': "import { sum } from '../lib/sum';\nself.onmessage = () => sum(2);",
      'lib/sum.ts': code('sum'),
    });
    expect(found['/']).toEqual(['app/board.tsx']);
  });

  it('is what these lead to that is marked, however far, by the names that are taken', () => {
    const found = starts({
      'app/page.tsx': "import { Card, other } from '../kit';\nexport default () => [Card, other];",
      'app/second/page.tsx': "'use client';\nimport { Card } from '../../kit';\nexport default () => Card;",
      'kit/index.ts':
        "export { Card } from './card';\nexport { Chart } from './chart';\nexport { other } from './other';",
      'kit/card.tsx': "import { Button } from './button';\nexport const Card = () => Button;",
      'kit/button.tsx': `'use client';\nimport { tone } from './tone';\nexport const Button = () => tone(1);`,
      'kit/tone.ts': code('tone'),
      'kit/chart.tsx': `'use client';\n${code('Chart')}`,
      'kit/other.ts': code('other'),
    });
    expect(found['/'].sort()).toEqual(['kit/button.tsx', 'kit/tone.ts']);
    expect(found['/second']).toEqual(expect.arrayContaining(['kit/card.tsx', 'kit/button.tsx', 'kit/tone.ts']));
  });

  it('is the marked parts of packages, through what runs of them on the server', () => {
    const found = starts({
      'app/page.tsx': "import { Dial, plain } from 'kit';\nexport default () => [Dial, plain];",
      'node_modules/kit/package.json':
        '{ "name": "kit", "version": "1.0.0", "module": "index.js", "sideEffects": false }',
      'node_modules/kit/index.js':
        "export { Dial } from './dial.js';\nexport { Gauge } from './gauge.js';\nexport { plain } from './plain.js';",
      'node_modules/kit/dial.js': `'use client';\n${code('Dial')}`,
      'node_modules/kit/gauge.js': `'use client';\n${code('Gauge')}`,
      'node_modules/kit/plain.js': code('plain'),
    });
    expect(found['/']).toEqual(['node_modules/kit/dial.js']);
  });

  it('is every style that they import', () => {
    const found = starts({
      'app/page.tsx': "import { box } from '../lib/box';\nexport default () => box(1);",
      'app/second/page.tsx': "'use client';\nimport { box } from '../../lib/box';\nexport default () => box(2);",
      'lib/box.ts': `import './box.css';\n${code('box')}`,
      'lib/box.css': '.box { color: red; padding: 1px }',
    });
    expect(found['/']).toEqual(['lib/box.css']);
  });
});
