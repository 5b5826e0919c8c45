// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';
import { environmentOf, toldToBuilds } from './environment.ts';

afterAll(removeFolders);

/** What a script of the app ships as, and one of a package, where the app’s files tell builds something. */
function shipped(text: string, files: Record<string, string> = {}): { own: string; ofPackage: string } {
  const { texts } = readSource(
    folderOf({
      'index.html': '<script type="module" src="/src/main.js"></script>',
      'src/main.js': `import 'kit';\n${text}`,
      'node_modules/kit/package.json': '{ "name": "kit", "main": "index.js" }',
      'node_modules/kit/index.js': text,
      ...files,
    }),
  );
  return { own: texts['src/main.js'], ofPackage: texts['node_modules/kit/index.js'] };
}

const ENV = {
  '.env': 'VITE_API=https://api.example/v1\nREACT_APP_NAME="Tides"\nSECRET=hidden\nVITE_LEVEL=low',
  '.env.production': '# over the other\nVITE_LEVEL=high',
};

describe('what builds are told', () => {
  it('are public names alone, the later files over the earlier', () => {
    expect(toldToBuilds(folderOf(ENV))).toEqual({
      VITE_API: 'https://api.example/v1',
      REACT_APP_NAME: 'Tides',
      VITE_LEVEL: 'high',
    });
    expect(toldToBuilds(folderOf({ 'a.js': '' }))).toEqual({});
  });

  it.each([
    ['import.meta.env.VITE_API', '"https://api.example/v1"', 'undefined'],
    ['process.env.REACT_APP_NAME', '"Tides"', 'undefined'],
    ['import.meta.env.SECRET', '({}).SECRET', 'undefined'],
    ['process.env.REACT_APP_OTHER', '({}).REACT_APP_OTHER', 'undefined'],
    ['import.meta.env.BASE_URL', '"/"', '"/"'],
    ['import.meta.env.SSR', 'false', 'false'],
    ['process.env.PUBLIC_URL', '""', 'undefined'],
    ['process.env.NODE_ENV', '"production"', '"production"'],
    ['import.meta.env.toString', 'undefined', 'undefined'],
  ])('stands in place of %s', (asked, own, ofPackage) => {
    const told = toldToBuilds(folderOf(ENV));
    expect(environmentOf(true, `f(${asked})`, told)[asked]).toBe(own);
    expect(environmentOf(false, `f(${asked})`, told)[asked]).toBe(ofPackage);
  });

  it('is in what ships, so that nothing asks the browser for it', () => {
    const { own } = shipped(
      'console.log(import.meta.env.VITE_API, process.env.REACT_APP_NAME, process.env.OTHER, import.meta.env[self.key]);\nconst { VITE_LEVEL } = import.meta.env; console.log(VITE_LEVEL);',
      ENV,
    );
    expect(own).toContain('https://api.example/v1');
    expect(own).toContain('Tides');
    expect(own).toContain('high');
    expect(own).not.toMatch(/process\.env|import\.meta|hidden/);
  });

  it('lets branches of other kinds of builds go, of packages too', () => {
    const text =
      "if (process.env.NODE_ENV !== 'production') console.log('slow'); if (import.meta.env.DEV) console.log('slow'); console.log(1);";
    const { own, ofPackage } = shipped(text);
    expect([own, ofPackage].join()).not.toMatch(/slow/);
  });

  it('is where calls for data go', () => {
    const { snapshot } = readSource(
      folderOf({
        ...ENV,
        'index.html': '<script type="module" src="/src/main.tsx"></script>',
        'src/main.tsx': "import Page from './page';\nexport const routes = [{ path: '/', element: <Page /> }];",
        'src/page.tsx':
          "const API = import.meta.env.VITE_API;\nconst OTHER = process.env.REACT_APP_OTHER ?? '/other';\nexport default function Page() { fetch(`${API}/tides`); fetch(OTHER + '/havens'); fetch((import.meta.env.VITE_NONE || '/none') + '/x'); return <p />; }",
      }),
    );
    expect(snapshot.routes[0].data.map((d) => d.address)).toEqual([
      'https://api.example/v1/tides',
      '/other/havens',
      '/none/x',
    ]);
  });
});
