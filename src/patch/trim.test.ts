import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import type { Decision, Plan } from '../core/plan/types.ts';
import { shipped } from '../core/ship/shipped.ts';
import { readSource } from '../reader/read-source.ts';
import { Mentions, unusedRules } from '../reader/unused-rules.ts';
import { folderOf, removeFolders, SAMPLE } from '../test-support/folders.ts';
import { sourcePatch } from './patch.ts';
import { SheetEdits } from './sheet-edits.ts';

afterAll(removeFolders);

/** A sheet without the rules of classes that begin with `no`. */
function without(text: string): string {
  const mentions = new Mentions();
  mentions.add('yes yes2 media layer');
  const edits = new SheetEdits(text);
  expect(edits.leaveOut(unusedRules([{ path: 'a.css', text }], mentions))).toEqual([]);
  return edits.finish();
}

describe('a trimmed sheet', () => {
  it.each([
    ['the first rule', '.no { top: 0 }\n\n.yes { top: 1px }\n', '.yes { top: 1px }\n'],
    ['the last rule', '.yes {\n  top: 0;\n}\n\n.no {\n  top: 1px;\n}\n', '.yes {\n  top: 0;\n}\n'],
    ['one between', '.yes{top:0}\n\n.no{top:0}\n\n.yes2{top:0}\n', '.yes{top:0}\n\n.yes2{top:0}\n'],
    ['the first of its lines', '.yes{top:0}\n\n.no{top:0}\n.yes2{top:0}\n', '.yes{top:0}\n\n.yes2{top:0}\n'],
    [
      'several in a row',
      '.yes{top:0}\n.no{top:0}\n.no2{top:0}\n\n.no3{top:0}\n.yes2{top:0}\n',
      '.yes{top:0}\n\n.yes2{top:0}\n',
    ],
    ['on one line', '.yes{top:0}.no{top:0}.yes2{top:0}', '.yes{top:0}.yes2{top:0}'],
    ['lines of Windows', '.yes{top:0}\r\n\r\n.no{top:0}\r\n', '.yes{top:0}\r\n'],
    ['all', '.no{top:0}\n', '\n'],
    [
      'the comment above it',
      '.yes{top:0}\n\n/* about no */\n.no{top:0}\n\n.yes2{top:0}\n',
      '.yes{top:0}\n\n.yes2{top:0}\n',
    ],
    ['not a comment that others need', '/* all of it */\n.no{top:0}\n.yes{top:0}\n', '/* all of it */\n.yes{top:0}\n'],
    ['not a heading apart', '/* Part */\n\n.no{top:0}\n\n.yes{top:0}\n', '/* Part */\n\n.yes{top:0}\n'],
    [
      'a block with its last rule',
      '@media (width > 1px) {\n  .no { top: 0 }\n}\n.yes { top: 0 }\n',
      '.yes { top: 0 }\n',
    ],
    ['blocks in blocks', '.yes{top:0}\n@media all{@supports (top:0){.no{top:0}}}\n', '.yes{top:0}\n'],
    ['not a layer, which has its place', '@layer a {\n  .no { top: 0 }\n}\n', '@layer a {\n}\n'],
    [
      'inside a block',
      '@media all {\n  .no { top: 0 }\n\n  .yes { top: 0 }\n}\n',
      '@media all {\n  .yes { top: 0 }\n}\n',
    ],
    ['selectors over two lines', '.no,\n.no2 { top: 0 }\n.yes,\n.no3 { top: 0 }\n', '.yes,\n.no3 { top: 0 }\n'],
  ])('loses %s', (_, before, after) => {
    expect(without(before)).toBe(after);
  });

  it('stays whole if one of the rules doesn’t stand where it stood', () => {
    const edits = new SheetEdits('.a{top:0}\n.b{top:0}\n');
    const rule = { module: 'a.css', bytes: 1, missing: [] };
    const gone = { ...rule, line: 3, selector: '.b' };
    expect(edits.leaveOut([{ ...rule, line: 1, selector: '.a' }, gone])).toEqual([gone]);
    expect(edits.finish()).toBe('.a{top:0}\n.b{top:0}\n');
  });
});

describe('the sample with its sheets trimmed', () => {
  const { snapshot, sources } = readSource(SAMPLE);
  const sheets = [...new Set(snapshot.unusedRules.map((r) => r.module))];
  const decisions = sheets.map((module): Decision => ({ kind: 'trim', module }));
  const plan: Plan = { name: 'Plan', description: '', decisions };

  it('has, read again, no unused rule and the planned sizes', () => {
    expect(snapshot.unusedRules.length).toBeGreaterThan(100);
    const { diff, files, steps } = sourcePatch(snapshot, plan, sources);
    expect(steps.map((s) => s.state)).toEqual(sheets.map(() => 'edited'));
    expect(files.map((f) => [f.path, f.added])).toEqual(sheets.map((path) => [path, 0]));
    const folder = folderOf({});
    fs.cpSync(SAMPLE, folder, { recursive: true, filter: (from) => !from.includes('node_modules') });
    execFileSync('git', ['apply', '--whitespace=error-all', '-'], { cwd: folder, input: diff });
    const again = readSource(folder).snapshot;
    expect(again.unusedRules).toEqual([]);
    const planned = shipped(snapshot, plan).snapshot;
    for (const sheet of sheets) {
      const size = (of: typeof snapshot) => of.modules.find((m) => m.path === sheet)!.bytes.minified;
      expect(Math.abs(size(again) - size(planned))).toBeLessThan(0.03 * size(snapshot));
    }
  });

  it('is refused where a sheet changed since it was read, and told rule by rule where its text isn’t kept', () => {
    const [first] = sheets;
    const one = { ...plan, decisions: decisions.slice(0, 1) };
    const changed = sourcePatch(snapshot, one, sources, (at) => `${fs.readFileSync(path.join(SAMPLE, at), 'utf8')} `);
    expect([changed.steps[0].state, changed.diff]).toEqual(['refused', '']);
    const { steps } = sourcePatch(snapshot, one, {});
    expect(steps[0]).toMatchObject({
      path: first,
      state: 'by hand',
      what: expect.stringContaining('read the app again'),
    });
    expect(steps[0].recipe).toMatch(/^\/\* line \d+ \*\/ \./);
  });
});
