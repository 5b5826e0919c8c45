import { folderOf, removeFolders } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';
import { Mentions, unusedRules } from './unused-rules.ts';

afterAll(removeFolders);

function unused(css: string, code: string): string[] {
  const mentions = new Mentions();
  mentions.add(code);
  return unusedRules([{ path: 'a.css', text: css }], mentions).map((r) => r.selector);
}

describe('style rules', () => {
  it.each([
    ['.card { color: red }', 'x.className="card big"', true],
    ['.card { color: red }', 'use("cards")', false],
    ['.card, .big { color: red }', 'use("big")', true],
    ['.card .big { color: red }', 'use("big")', false],
    ['#map > .pin:hover { color: red }', '<i id="map" class="pin">', true],
    ['blockquote { color: red }', 'h("div")', false],
    ['html, :root, *, ::selection { color: red }', '', true],
    ['.tone-red { color: red }', `use(\`tone-\${name}\`)`, true],
    ['a:not(.gone) { color: red }', '', true],
    ['[data-open] { color: red }', '', true],
    ['.card { & .gone { color: red } }', 'card', true],
    ['@media (min-width: 600px) { .gone { color: red } }', '', false],
    ['@keyframes turn { from { top: 0 } 50% { top: 1px } }', '', true],
    ['.esc\\:aped { color: red }', 'use("esc:aped")', false],
  ])('%s with %s: used %s', (css, code, used) => {
    expect(unused(css, code).length === 0).toBe(used);
  });

  it('are told with their line, bytes and the name that is missing', () => {
    const [rule] = unusedRules(
      [{ path: 'a.css', text: '.a { color: red }\n\n.gone,\n.away { color: red; top: 0; }' }],
      (() => {
        const m = new Mentions();
        m.add('"a"');
        return m;
      })(),
    );
    expect(rule).toEqual({
      module: 'a.css',
      line: 3,
      selector: '.gone, .away',
      bytes: '.gone,.away{color:red;top:0}'.length,
      missing: ['gone', 'away'],
    });
  });

  it('of a whole app are compared with its scripts, documents and server templates', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': '<body class="page"><script type="module" src="/main.js"></script></body>',
        'views/mail.ejs': '<p class="mail <%= tone %>">',
        'main.js': "import './base.css';\ndocument.body.classList.add('lit');",
        'base.css': '.page { top: 0 }\n.mail { top: 0 }\n.lit { top: 0 }\n.never { top: 0 }',
      }),
    );
    expect(snapshot.unusedRules.map((r) => [r.module, r.line, r.selector])).toEqual([['base.css', 4, '.never']]);
  });
});
