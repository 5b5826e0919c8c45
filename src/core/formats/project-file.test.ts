import { part, route, sketch } from '../../test-support/snapshots.ts';
import { InputError } from '../errors.ts';
import { PROJECT_FORMAT, PROJECT_VERSION, type ProjectFile, parseProject, writeProject } from './project-file.ts';

const project: ProjectFile = {
  format: PROJECT_FORMAT,
  version: PROJECT_VERSION,
  amendments: {
    confirmed: true,
    base: '/app/',
    routes: [{ realm: 'site', pattern: '/', kind: 'changed', change: { rendering: 'server' } }],
    keep: ['tone-*'],
  },
  snapshot: sketch(
    { main: { imports: ['~a'] }, a: {} },
    {
      routes: [
        route('/', 'a', {
          evidence: { path: 'main', line: 3 },
          parts: [
            part('x', 'a', { place: 'conditional', condition: { kind: 'media', maxWidth: 600 } }),
            part('y', 'a', { place: 'conditional', condition: { kind: 'answer', of: 'call' } }),
            part('z', 'a', { place: 'conditional', condition: { kind: 'one of', group: 'g' } }),
            part('s', 'a', { place: 'conditional', condition: { kind: 'segment', segment: 'crew' } }),
          ],
          content: [
            {
              id: 'p',
              kind: 'image',
              address: '/p.jpg',
              bytes: 1,
              serverMs: 2,
              foundIn: { module: 'a' },
              place: 'below',
              lazy: true,
            },
          ],
          data: [{ id: 'd', address: '/d', bytes: 1, serverMs: 2, module: 'a' }],
        }),
      ],
      packages: [{ name: '@made/up', version: null, folder: 'packages/up' }],
      unresolved: [{ from: 'main', specifier: 'x', line: 1, reason: 'none', leftOut: true }],
      failed: [{ path: 'a', line: 2, message: 'broken' }],
      notices: [{ kind: 'unminified', path: 'a', message: 'is not minified' }],
      unusedRules: [{ module: 'a', line: 1, selector: '.x', bytes: 9, missing: ['x'] }],
      links: [
        {
          realm: 'site',
          rel: 'preload',
          address: '/p.jpg',
          as: 'image',
          crossorigin: false,
          priority: 'high',
          bytes: null,
          evidence: { path: 'index.html', line: 3 },
        },
      ],
      output: {
        files: [
          {
            path: 'f.js',
            kind: 'script',
            bytes: { minified: 3, gzip: 2, brotli: 1 },
            inside: 'names',
            modules: [{ module: 0, bytes: 3 }],
            contents: [{ source: 'main', bytes: 3 }],
            imports: [{ to: 0, kind: 'dynamic', line: 1 }],
          },
        ],
        starts: [{ realm: 'site', tags: [{ file: 0, placement: 'module', offset: 12 }] }],
      },
      scripts: [
        {
          id: 'c',
          name: 'c',
          address: '/c.js',
          bytes: 1,
          serverMs: 1,
          evaluationMs: 1,
          placement: 'async',
          evidence: null,
        },
      ],
    },
  ),
  plans: [{ name: 'One', description: '', decisions: [{ kind: 'join', import: 'main::a' }] }],
  texts: { main: 'import("a")', a: '' },
};

function broken(change: (copy: ProjectFile) => void): string {
  const copy = JSON.parse(writeProject(project)) as ProjectFile;
  change(copy);
  return JSON.stringify(copy);
}

describe('project files', () => {
  it('come back as they were written', () => {
    expect(parseProject(writeProject(project), 'a.yokeline.json')).toEqual(project);
  });

  it.each([
    [0, 'Not a project file'],
    [1.5, 'Not a project file'],
    ['2', 'Not a project file'],
    [3, 'Project file of a newer version'],
  ])('of the version %p are refused', (version, title) => {
    const refused = () =>
      parseProject(
        broken((copy) => Object.assign(copy, { version })),
        'a.json',
      );
    expect(refused).toThrow(expect.objectContaining({ title }));
  });

  it.each([1, 2])('of version %d are taken as one of the newest', (version) => {
    expect(
      parseProject(
        broken((copy) => Object.assign(copy, { version })),
        'a.json',
      ),
    ).toEqual(project);
  });

  it('that are broken JSON are refused with line and column', () => {
    try {
      parseProject('{\n  "format": "yokeline-project",\n  oops\n}', 'app.json');
      throw new Error('not refused');
    } catch (error) {
      expect(error).toBeInstanceOf(InputError);
      expect((error as InputError).at).toBe('app.json:3:3');
    }
  });

  it.each([
    ['{}', 'no "format"'],
    ['[]', 'must be an object'],
    [
      broken((p) => {
        p.version = 99;
      }),
      'version 99; this program reads up to 2',
    ],
    [
      broken((p) => {
        p.version = 0;
      }),
      'whole number from 1',
    ],
    [
      broken((p) => {
        p.snapshot.modules[1].path = 'main';
      }),
      'main is listed more than once',
    ],
    [
      broken((p) => {
        p.snapshot.modules[0].bytes.gzip = -1;
      }),
      'snapshot.modules[0].bytes.gzip',
    ],
    [
      broken((p) => {
        p.snapshot.imports[0].to = 9;
      }),
      'there are 2 modules',
    ],
    [
      broken((p) => {
        p.snapshot.entries[0].modules = ['none'];
      }),
      'There is no module none',
    ],
    [
      broken((p) => {
        p.snapshot.routes.push(p.snapshot.routes[0]);
      }),
      '/ is there more than once',
    ],
    [
      broken((p) => {
        p.snapshot.routes[0].parts[0].share = 2;
      }),
      'a number from 0 to 1',
    ],
    [
      broken((p) => {
        p.plans.push(p.plans[0]);
      }),
      'Rename one of the plans called One',
    ],
    [
      broken((p) => {
        p.texts = { main: 7 as unknown as string };
      }),
      'texts["main"] must be a text',
    ],
  ])('that don’t fit are refused by the field (%#)', (text, words) => {
    expect(() => parseProject(text, 'app.json')).toThrow(words);
  });
});
