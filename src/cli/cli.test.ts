import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { DECISION, type Decision } from '../core/plan/types.ts';
import { built } from '../test-support/built.ts';
import { EVERY_DECISION } from '../test-support/every-decision.ts';
import { folderOf, removeFolders, SAMPLE } from '../test-support/folders.ts';

built('cli/main.js');
const bin = path.resolve('bin/yokeline.mjs');

function run(...args: string[]) {
  return JSON.parse(execFileSync(process.execPath, [bin, ...args, '--json'], { encoding: 'utf8' }));
}

function refused(...args: string[]) {
  const { status, stderr } = spawnSync(process.execPath, [bin, ...args, '--json'], { encoding: 'utf8' });
  return { status, error: JSON.parse(stderr).error };
}

function fits(decision: Decision): boolean {
  try {
    DECISION.check(decision, '');
    return true;
  } catch {
    return false;
  }
}

describe('yokeline', () => {
  const file = path.join(folderOf({}), 'sample.yokeline.json');
  const read = run('read', SAMPLE, '--out', file);
  afterAll(removeFolders);

  it('reads a folder into a project file', () => {
    expect(read).toMatchObject({ imports: { dynamic: 21 }, unresolved: [], failed: [] });
    expect(read.routes).toHaveLength(8);
    expect(read.bytes.source).toBeGreaterThan(read.bytes.minified);
    expect(read.bytes.minified).toBeGreaterThan(read.bytes.gzip);
    expect(fs.existsSync(`${file}.part`)).toBe(false);
  });

  it('tells the imports, and the chunks whose groups cover what each root needs', () => {
    const graph = run('graph', file);
    expect(graph.modules).toHaveLength(read.modules);
    expect(graph.entries[0]).toEqual({ realm: 'site', route: null, modules: ['src/main.tsx'] });
    const { chunks, roots } = run('chunks', file);
    const inChunk = new Map(chunks.map((c: { id: string; modules: string[] }) => [c.id, c.modules]));
    for (const root of roots) {
      expect(root.group.flatMap((id: string) => inChunk.get(id)).sort()).toEqual([...root.need].sort());
    }
    const exact = run('chunks', file, '--exact').chunks.find((c: { name: string }) => c.name === 'entry');
    const estimate = chunks.find((c: { name: string }) => c.name === 'entry');
    expect(exact.bytes.gzip / estimate.bytes.gzip).toBeCloseTo(1, 1);
  });

  it('makes a plan and predicts that the landing gets shorter', () => {
    const before = run('simulate', file, '--route', '/timetable');
    const detach = 'src/timetable/departure-board.tsx::../tickets/ticket-dialog';
    const { plan } = run(
      'plan',
      file,
      '--name',
      'Lean',
      '--detach',
      detach,
      '--hint',
      'modulepreload:src/timetable/weather-strip.tsx@header',
    );
    expect(plan.decisions).toHaveLength(2);
    const after = run('simulate', file, '--route', '/timetable', '--plan', 'Lean');
    expect(after.milestones.interactive).toBeLessThan(before.milestones.interactive - 500);
    expect(after.requests.find((r: { name: string }) => r.name === 'weather-strip').role).toBe('hinted');
    const last = before.chain.at(-1);
    expect(last.to).toBeCloseTo(before.milestones.interactive, 0);
    expect(
      run('graph', file, '--plan', 'Lean').imports.find((i: { to: string }) => i.to === 'src/tickets/ticket-dialog.tsx')
        .kind,
    ).toBe('dynamic');
    const other = path.join(path.dirname(file), 'other.json');
    run('plan', file, '--name', 'Else', '--join', 'src/app/routes.tsx::../help/help-page', '--out', other);
    expect(run('chunks', other, '--plan', 'Else').roots.length).toBeLessThan(run('chunks', file).roots.length);
  });

  it('tells what each import carries out of a start, and what moves', () => {
    const { route, startBytes, imports, modules } = run('carried', file, '--route', '/timetable');
    expect([route, startBytes > 1_000_000]).toEqual(['/timetable', true]);
    const board = imports.find((i: { to: string }) => i.to.endsWith('departure-board.tsx'));
    expect(board.leaves).toBeGreaterThan(600_000);
    expect(board.moved[0]).toEqual({ root: 'site:src/timetable/departure-board.tsx', bytes: board.leaves });
    const own = modules.find((m: { path: string }) => m.path.endsWith('departure-board.tsx'));
    expect(own.leaves).toBe(board.leaves);
    const most = imports.map((i: { leaves: number }) => i.leaves);
    expect(most).toEqual([...most].sort((a, b) => b - a));
  });

  it('shapes chunks, for once or in a plan', () => {
    const count = (...args: string[]) => run('chunks', file, ...args).chunks.length;
    const asBuilt = count();
    expect(count('--floor', '50000')).toBeLessThan(asBuilt);
    expect(count('--grain')).toBeGreaterThan(asBuilt * 2);
    const { chunks, stale } = run(
      'chunks',
      file,
      '--gather',
      'charts=package:@saltmarsh/tidewright',
      '--apart',
      'nowhere/**',
    );
    expect(chunks.find((c: { name: string }) => c.name === 'charts').modules.length).toBeGreaterThan(3);
    expect(stale[0].reason).toBe('no module matches nowhere/**');
    const out = path.join(path.dirname(file), 'shaped.json');
    const { plan } = run(
      'plan',
      file,
      '--name',
      'Few',
      '--ceiling',
      '3',
      '--detach-package',
      '@saltmarsh/paperkit',
      '--out',
      out,
    );
    expect(plan.decisions.map((d: { kind: string }) => d.kind)).toEqual(['detach', 'ceiling']);
    const { roots } = run('chunks', out, '--plan', 'Few');
    expect(Math.max(...roots.map((r: { group: string[] }) => r.group.length))).toBeLessThanOrEqual(3);
  });

  it('takes conditions of one’s own wherever it takes named ones', () => {
    const own = [
      '--rtt',
      '40',
      '--down',
      '9000',
      '--protocol',
      'h1',
      '--cpu',
      '2',
      '--viewport',
      '1400x900',
      '--no-touch',
    ];
    const { conditions, readout, sums, milestones } = run('simulate', file, '--route', '/timetable', ...own);
    expect(conditions.link).toMatchObject({ rttMs: 40, downKbps: 9000, protocol: 'h1', upKbps: 600, tls: '1.3' });
    expect(conditions.device).toMatchObject({ cpuFactor: 2, touch: false, viewport: { width: 1400, height: 900 } });
    const slow = run('simulate', file, '--route', '/timetable', ...own, '--rtt', '400');
    expect(slow.milestones.interactive).toBeGreaterThan(milestones.interactive);
    // The start hangs on none of it, and is the sum of its files.
    expect(slow.readout.startBytes).toBe(readout.startBytes);
    const bytes = sums.start.reduce((sum: number, f: { bytes: number }) => sum + f.bytes, 0);
    expect(bytes).toBe(readout.startBytes);
    expect(Object.keys(sums)).toEqual(['start', 'other scripts', 'also fetched']);
    const wait = (...more: string[]) => run('visit', file, '--visit', '/ > move /book', ...own, ...more).steps[1].wait;
    expect(wait('--rtt', '400')).toBeGreaterThan(wait());
  });

  it.each([
    [['graph', 'none.json'], 'No such file'],
    [['carried', file, '--route', '/none'], 'No such route'],
    [['read', SAMPLE, '--out', '/nowhere/at/all.json'], 'The file can’t be written'],
    [['simulate', file, '--route', '/none'], 'No such route'],
    [['simulate', file, '--route', '/', '--link', 'string'], 'No such link'],
    [['simulate', file, '--route', '/', '--device', 'abacus'], 'No such device'],
    [['simulate', file, '--route', '/', '--cache', 'full'], 'No such cache state'],
    [['simulate', file, '--route', '/', '--rtt', 'long'], 'Not such a number'],
    [['visit', file, '--visit', '/', '--down', '0'], 'Not such a number'],
    [['advise', file, '--viewport', '390'], 'Not such a number'],
    [['choose', file, '--protocol', 'h4'], 'No such choice'],
    [['simulate', file, '--route', '/', '--plan', 'none'], 'No such plan'],
    [['plan', file, '--name', 'Baseline'], 'The baseline stays as it is'],
    [['plan', file, '--name', 'X', '--detach', 'src/main.tsx::none'], 'No such import'],
    [['plan', file, '--name', 'X', '--hint', 'preload:none@markup'], 'Hint without a target'],
    [['plan', file, '--name', 'X', '--route', '/none'], 'No such route'],
  ])('ends with 2 and says what to do for bad input (%#)', (args, title) => {
    const { status, error } = refused(...args);
    expect(status).toBe(2);
    expect(error.title).toBe(title);
    expect(error.detail.length).toBeGreaterThan(5);
  });

  it('makes a plan of what travels at all, based on another, and tells what can’t be followed', () => {
    run('plan', file, '--name', 'First', '--floor', '2000');
    const [{ module: trimmed }] = JSON.parse(fs.readFileSync(file, 'utf8')).snapshot.unusedRules;
    const { plan, stale } = run(
      'plan',
      file,
      '--name',
      'Second',
      '--based-on',
      'First',
      '--without-script',
      'src/sailing/ship-facts.tsx',
      '--without-script',
      'src/home/hero.tsx',
      '--trim',
      trimmed,
      '--style-in-script',
      'src/nowhere/**',
    );
    expect(plan.basedOn).toBe('First');
    expect(plan.decisions[0]).toEqual({ kind: 'floor', bytes: 2000 });
    expect(stale.map((s: { reason: string }) => s.reason)).toEqual([
      'src/home/hero.tsx answers to the person, so it needs its script',
      'src/nowhere/** matches no style sheet',
    ]);
    const bytes = (of: string[]) =>
      run('chunks', file, ...of)
        .chunks.filter((c: { kind: string }) => c.kind === 'style')
        .reduce((sum: number, c: { bytes: { minified: number } }) => sum + c.bytes.minified, 0);
    expect(bytes(['--plan', 'Second'])).toBeLessThan(bytes(['--plan', 'First']) - 3000);
    expect(bytes(['--plan', 'Second', '--exact'])).toBeLessThan(bytes(['--plan', 'First', '--exact']) - 3000);
    expect(refused('plan', file, '--name', 'Second', '--based-on', 'First').error.title).toBe(
      'The plan is there already',
    );
  });

  it('makes every kind of decision there is', () => {
    const out = path.join(path.dirname(file), 'every.json');
    const kinds = [...new Set(EVERY_DECISION.map((d) => d.kind))];
    const valid = kinds.map((kind) => EVERY_DECISION.find((d) => d.kind === kind && fits(d))!);
    const given = valid.flatMap((d) => ['--decide', JSON.stringify(d)]);
    const { plan } = run('plan', file, '--name', 'Every', '--out', out, ...given);
    expect(new Set(plan.decisions.map((d: Decision) => d.kind))).toEqual(new Set(kinds));
    expect(refused('plan', file, '--name', 'X', '--decide', '{"kind":"fly"}').error.at).toBe('--decide.kind');
    const ways = ['--loader', 'discovered', '--script', 'harbour-counter@defer'];
    const moved = ['--move', 'src/main.tsx::./app/app=src/app/routes.tsx'];
    const said = run('plan', file, '--name', 'Ways', '--out', out, ...ways, ...moved).plan.decisions;
    expect(said).toEqual([
      { kind: 'loader', loader: 'discovered' },
      { kind: 'script', script: 'harbour-counter', placement: 'defer' },
      { kind: 'move', import: 'src/main.tsx::./app/app', to: 'src/app/routes.tsx' },
    ]);
    expect(refused('plan', file, '--name', 'X', '--script', 'x@nowhere').error.at).toContain('placement');
  });

  it('writes a predicted landing as an archive, under any cache', () => {
    const har = path.join(path.dirname(file), 'landing.har');
    const { milestones } = run('simulate', file, '--route', '/timetable', '--har', har);
    const { log } = JSON.parse(fs.readFileSync(har, 'utf8'));
    expect(log.pages[0].pageTimings._interactive).toBeCloseTo(milestones.interactive, 1);
    const under = (cache: string) => run('simulate', file, '--route', '/timetable', '--cache', cache);
    const bytes = (cache: string) =>
      under(cache).requests.reduce((sum: number, r: { bytes: number }) => sum + r.bytes, 0) as number;
    expect(bytes('returning')).toBeLessThan(bytes('deployed') + 1);
    expect(bytes('stale')).toBeLessThan(bytes('rebuilt'));
    expect(under('stale').readout.startBytes).toBe(under('rebuilt').readout.startBytes);
    expect(refused('simulate', file, '--route', '/', '--cache', 'warm').error.detail).toContain('deployed');
  });

  it('explains itself', () => {
    const help = execFileSync(process.execPath, [bin, 'simulate', '--help'], { encoding: 'utf8' });
    expect(help).toContain('--route <pattern>');
    expect(spawnSync(process.execPath, [bin, 'simulate']).status).toBe(2);
  });

  it('plays visits as they are written, and names the step that can’t be taken', () => {
    const visit = '/timetable > act ticket @4000+300 > move /book @3000';
    const { steps, waits } = run('visit', file, '--visit', visit, '--device', 'laptop');
    expect(steps.map((s: { kind: string }) => s.kind)).toEqual(['landing', 'act', 'move']);
    // Each is rounded by itself.
    expect(Math.abs(waits - steps[1].wait - steps[2].wait)).toBeLessThan(0.11);
    expect(steps[2].requests.map((r: { name: string }) => r.name)).toContain('booking-page');
    const kept = path.join(path.dirname(file), 'v.json');
    fs.writeFileSync(
      kept,
      JSON.stringify({ name: 'v', landing: '/timetable', steps: [{ does: 'act', part: 'ticket' }] }),
    );
    expect(run('visit', file, '--visit', kept).steps).toHaveLength(2);
    expect(refused('visit', file, '--visit', '/timetable > act nothing')).toMatchObject({
      status: 2,
      error: { at: 'steps[0]', detail: expect.stringContaining('ticket') },
    });
  });

  it('learns visitors from a log, and tells what they can expect of a plan', () => {
    const other = path.join(path.dirname(file), 'learned.yokeline.json');
    const log = 'examples/saltmarsh-ferries.visits.csv';
    const learned = run('visitors', file, '--log', log, '--out', other, '--error', '0.05');
    expect(learned.log).toMatchObject({ visits: 600, troubles: [] });
    expect(learned.waits.error).toBeLessThan(learned.waits.mean * 0.05);
    const fetch = 'src/booking/booking-page.tsx@approach';
    run('plan', other, '--name', 'Ahead', '--fetch', fetch);
    const wait = (plan: string) =>
      run('visitors', other, '--plan', plan, '--device', 'laptop').rows.find(
        (r: { key: string }) => r.key === '/timetable → /book',
      ).wait.mean;
    expect(wait('Ahead')).toBeLessThan(wait('Baseline') * 0.7);
    expect(refused('visitors', file, '--log', 'nowhere.csv')).toMatchObject({
      status: 2,
      error: { at: 'nowhere.csv' },
    });
    expect(refused('plan', other, '--name', 'Ahead', '--fetch', 'src/nowhere.ts@idle').error.title).toBe(
      'No such split point',
    );
    expect(refused('plan', other, '--name', 'Ahead', '--fetch', fetch.replace('approach', 'soon')).error.title).toBe(
      'No such moment',
    );
  });

  it('advises what to change, with decisions that can be made', () => {
    const { findings, noGain } = run('advise', file);
    expect(findings[0].effect.cost).toBeLessThan(-500);
    expect(findings.map((f: { kind: string }) => f.kind)).toContain('route leak');
    expect(noGain.length).toBeGreaterThan(0);
    for (const { decision } of findings)
      expect(decision.decisions.length + decision.withdraw.length).toBeGreaterThan(0);
    expect(refused('advise', file, '--plan', 'Nobody’s').status).toBe(2);
  });

  it('tells the effect of advice as changes of an average visit, over several sets of conditions too', () => {
    const [best] = run(
      'advise',
      file,
      '--for',
      'crowded-cell/everyday-phone=3',
      '--for',
      'home-line/laptop=1',
    ).findings;
    for (const change of Object.values(best.effect)) expect(typeof change).toBe('number');
    const mean = best.routes.reduce(
      (sum: number, r: { interactive: number }) => sum + r.interactive / best.routes.length,
      0,
    );
    // By shares of landings it can't be far from the plain mean of routes that all change alike.
    expect(best.effect.interactive / mean).toBeGreaterThan(0.8);
    expect(best.mix.under.map((u: { name: string; share: number }) => [u.name, u.share])).toEqual([
      ['crowded-cell, everyday-phone', 0.75],
      ['home-line, laptop', 0.25],
    ]);
    const [crowded, cable] = best.mix.under;
    expect(crowded.cost).toBeCloseTo(best.effect.cost, 0);
    expect(best.mix.cost).toBeCloseTo(0.75 * crowded.cost + 0.25 * cable.cost, 0);
    expect(refused('advise', file, '--for', 'crowded-cell').status).toBe(2);
  });

  it('chooses hints within limits, for several sets of conditions, and keeps them as a plan', () => {
    const out = path.join(path.dirname(file), 'chosen.json');
    const both = ['--for', 'crowded-cell/everyday-phone=3', '--for', 'home-line/laptop=1'];
    const choice = run('choose', file, ...both, '--changes', '4', '--waste', '0', '--keep', 'Chosen', '--out', out);
    expect(choice.hints).toHaveLength(4);
    expect(choice.path.map((t: { hint: string }) => t.hint)).toHaveLength(4);
    expect(choice.cost.after).toBeLessThan(choice.cost.before);
    expect(choice.waste.after).toBe(0);
    expect(choice.curve.at(-1).gain).toBeCloseTo(choice.cost.before - choice.cost.after, 0);
    const again = run('choose', out, '--plan', 'Chosen', ...both, '--waste', '0');
    expect(again.cost.before).toBeCloseTo(choice.cost.after, 0);
    expect(refused('choose', file, '--changes', '0').error.title).toContain('contradict');
    expect(refused('choose', file, '--for', 'crowded-cell/everyday-phone=0').error.title).toBe('An empty mix');
    expect(refused('choose', file, '--for', 'somewhere').error.detail).toContain('LINK/DEVICE=WEIGHT');
    expect(refused('choose', file, '--about', 'all').status).toBe(2);
  });

  it('reads an app with the workspace around it where that is named', () => {
    const folder = folderOf({
      'apps/a/package.json': '{ "name": "a" }',
      'apps/a/index.html': '<script type="module" src="/main.js"></script>',
      'apps/a/main.js': "import '../../kit/near.js';",
      'kit/near.js': 'console.log(1);',
    });
    const app = path.join(folder, 'apps/a');
    const alone = run('read', app);
    expect([alone.modules, alone.notices[0].kind]).toEqual([1, 'outside']);
    expect(run('read', app, '--workspace', folder)).toMatchObject({ modules: 2, notices: [], unresolved: [] });
    expect(refused('read', app, '--workspace', path.join(folder, 'kit')).error.title).toBe(
      'Not the workspace of this app',
    );
  });

  it('hands over a patch, and checks the app against limits before and after an import that breaks them', () => {
    const folder = path.join(folderOf({}), 'app');
    fs.cpSync(SAMPLE, folder, { recursive: true });
    const own = path.join(folderOf({}), 'own.yokeline.json');
    run('read', folder, '--out', own);
    expect(refused('check', folder, '--project', own)).toMatchObject({ status: 2, error: { title: 'No limits' } });
    const ticket = 'src/timetable/departure-board.tsx::../tickets/ticket-dialog';
    run('plan', own, '--name', 'Lean', '--detach', ticket);
    const { limits } = run('limits', own, '--set-from', 'Lean', '--slack', '5');
    expect(limits.length).toBeGreaterThan(30);
    expect(run('check', folder, '--project', own)).toMatchObject({
      ok: true,
      pending: [{ words: expect.stringContaining('ticket-dialog') }],
    });
    const patch = path.join(folderOf({}), 'lean.patch');
    expect(
      run('export', own, '--plan', 'Lean', '--kind', 'patch', '--sources', folder, '--out', patch).steps,
    ).toMatchObject([{ state: 'edited', path: 'src/timetable/departure-board.tsx' }]);
    execFileSync('git', ['apply', patch], { cwd: folder });
    expect(run('check', folder, '--project', own)).toMatchObject({ ok: true, pending: [] });
    // The folder isn't as it was read any more.
    expect(run('export', own, '--plan', 'Lean', '--kind', 'patch', '--sources', folder, '--out', patch)).toMatchObject({
      out: null,
      steps: [{ state: 'refused' }],
    });

    const tiles = path.join(folder, 'src/home/route-tiles.tsx');
    fs.writeFileSync(
      tiles,
      `import { makeDocument } from '@saltmarsh/paperkit';\n${fs.readFileSync(tiles, 'utf8')}export const made = makeDocument;\n`,
    );
    const broken = spawnSync(process.execPath, [bin, 'check', folder, '--project', own, '--json'], {
      encoding: 'utf8',
    });
    expect(broken.status).toBe(1);
    const report = JSON.parse(broken.stdout);
    expect(report.broken[0].because[0]).toMatchObject({ from: 'src/home/route-tiles.tsx', line: 1, isNew: true });
    const text = spawnSync(process.execPath, [bin, 'check', folder, '--project', own, '--markdown'], {
      encoding: 'utf8',
    });
    expect(text.status).toBe(1);
    expect(text.stdout).toContain('`src/home/route-tiles.tsx:1` now brings');
  });

  it('exports what a plan hands over, with stand-ins until a map of built files is given', () => {
    const out = (name: string) => path.join(path.dirname(file), name);
    const hint = 'prefetch:src/tide/tide-chart.tsx';
    run('plan', file, '--name', 'Over', '--hint', hint, '--route', '/timetable', '--out', out('over.json'));
    const plan = ['--plan', 'Over'];
    const markup = run('export', out('over.json'), ...plan, '--kind', 'markup', '--out', out('hints.html'));
    expect(markup.standIns).toContain('{{tide-chart}}');
    fs.writeFileSync(out('map.json'), JSON.stringify({ 'src/tide/tide-chart.tsx': 'assets/tide-9c.js' }));
    const files = ['--files', out('map.json')];
    run('export', out('over.json'), ...plan, '--kind', 'markup', '--out', out('hints.html'), ...files);
    expect(fs.readFileSync(out('hints.html'), 'utf8')).toContain('<link rel="prefetch" href="/assets/tide-9c.js">');
    run('export', out('over.json'), ...plan, '--kind', 'report', '--out', out('report.md'));
    expect(fs.readFileSync(out('report.md'), 'utf8')).toContain('### By server or markup');
    const nothing = refused('export', file, '--kind', 'headers', '--out', out('none.txt'));
    expect(nothing.error.title).toBe('Nothing to hand over');
    expect(refused('export', file, '--kind', 'film', '--out', out('none.txt')).error.detail).toContain('manifest');
  });
});
