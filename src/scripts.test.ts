import fs from 'node:fs';
import path from 'node:path';

/** Programs beside the sources that use the build, whose names no compiler checks. */
const PROGRAMS = ['script', 'examples', 'bin', 'e2e'].flatMap((folder) =>
  fs
    .readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((f) => /\.(mjs|ts)$/.test(f) && !f.includes('node_modules') && !/^(hollow|saltmarsh)/.test(f))
    .map((f) => path.join(folder, f)),
);

/** `{ names } from/await … ('some/file.js')`, and addresses of single files. */
const USES = [
  /(?:import|const) \{([^}]*)\} (?:from|= await \w+\() ?\(?'(?:[./]*dist\/)?((?:[a-z-]+\/)*[a-z-]+)\.js'/g,
  /()['"(`](?:[./]*)dist\/((?:[a-z-]+\/)*[a-z-]+)\.js/g,
];

const sourceOf = (file: string): string | undefined =>
  [`src/${file}.ts`, `src/core/${file}.ts`].find((f) => fs.existsSync(f));

function exportsOf(file: string): Set<string> {
  const text = fs.readFileSync(file, 'utf8');
  const own = [...text.matchAll(/^export (?:async )?(?:const|let|function\*?|class) (\w+)/gm)].map((m) => m[1]);
  const passed = [...text.matchAll(/^export \{([^}]*)\}/gm)].flatMap((m) => m[1].split(',').map((n) => n.trim()));
  return new Set([...own, ...passed]);
}

describe('programs beside the sources', () => {
  it('use files and names that the build has', () => {
    const wrong: string[] = [];
    let uses = 0;
    for (const program of PROGRAMS) {
      const text = fs.readFileSync(program, 'utf8');
      for (const [, names, file] of USES.flatMap((use) => [...text.matchAll(use)])) {
        const source = sourceOf(file);
        // Packages and files of the programs' own are found by whoever runs them.
        if (!source && !text.includes(`dist/${file}.js`) && !/^(core|reader|patch|store|server|cli)\//.test(file))
          continue;
        uses++;
        if (!source) {
          wrong.push(`${program}: ${file}`);
          continue;
        }
        const known = exportsOf(source);
        const asked = names
          .split(',')
          .map((n) => n.trim().split(/\s*:\s*|\s+as\s+/)[0])
          .filter(Boolean);
        for (const name of asked) if (!known.has(name)) wrong.push(`${program}: ${name} of ${file}`);
      }
    }
    expect(wrong).toEqual([]);
    expect(uses).toBeGreaterThan(50);
  });
});
