import { InputError } from '../errors.ts';
import { NO_NOTES, parseNotes } from './app-notes.ts';
import { readFileMap } from './file-map.ts';

const at = (work: () => unknown): string | undefined => {
  try {
    work();
  } catch (error) {
    if (error instanceof InputError) return error.at;
    throw error;
  }
  return 'nothing thrown';
};

describe('notes beside the code', () => {
  it('say nothing where they are empty', () => {
    expect(parseNotes('{}')).toEqual(NO_NOTES);
    expect(NO_NOTES).toMatchObject({ entries: [], shell: { parts: [] }, routes: new Map(), scripts: new Map() });
  });

  it('are taken by pattern and by id, what isn’t said as it is assumed', () => {
    const { routes, scripts, entries } = parseNotes(
      JSON.stringify({
        entries: [{ modules: ['src/start.ts'] }],
        routes: { '/a/:id': { rendering: 'server', links: ['/'] } },
        scripts: { chat: { bytes: 900 } },
      }),
    );
    expect(entries).toEqual([{ realm: 'site', document: null, modules: ['src/start.ts'] }]);
    expect([...routes]).toEqual([['/a/:id', { rendering: 'server', content: [], data: [], links: ['/'] }]]);
    expect([...scripts]).toEqual([['chat', { bytes: 900 }]]);
  });

  it.each([
    ['{', 'yokeline.app.json:1:2'],
    ['[]', 'yokeline.app.json'],
    ['{ "routes": { "/a": { "landings": -1 } } }', 'yokeline.app.json: routes["/a"].landings'],
    ['{ "scripts": { "chat": { "bytes": "many" } } }', 'yokeline.app.json: scripts["chat"].bytes'],
    ['{ "entries": [{}] }', 'yokeline.app.json: entries[0].modules'],
  ])('name the file and the field where %s is wrong', (text, where) => {
    expect(at(() => parseNotes(text))).toBe(where);
  });
});

describe('a map of files', () => {
  it('is taken as it is, and refused by its entry', () => {
    expect(readFileMap('{ "src/a.tsx": "assets/a.js" }', 'map.json')).toEqual({ 'src/a.tsx': 'assets/a.js' });
    expect(at(() => readFileMap('{}', 'map.json'))).toBe('map.json');
    expect(at(() => readFileMap('{ "src/a.tsx": 3 }', 'map.json'))).toBe('map.json["src/a.tsx"]');
  });
});
