import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { CheckoutLock } from './checkout-lock.ts';

afterAll(removeFolders);

const git = (folder: string, ...words: string[]) =>
  execFileSync('git', ['-c', 'user.name=a', '-c', 'user.email=a@b', ...words], { cwd: folder, stdio: 'pipe' });

function repository(): string {
  const folder = folderOf({ 'app/src/a.js': '1', 'b.js': '1' });
  git(folder, 'init', '-q');
  git(folder, 'add', '.');
  git(folder, 'commit', '-qm', 'one');
  return folder;
}

describe('a checkout', () => {
  it('is told in every folder of its repository, until its lock is gone', async () => {
    const folder = repository();
    const lock = new CheckoutLock(path.join(folder, 'app/src'));
    expect(lock.isHeld).toBe(false);
    const file = path.join(folder, '.git/index.lock');
    fs.writeFileSync(file, '');
    expect(lock.isHeld).toBe(true);
    const waited = lock.released(() => false).then(() => 'released');
    expect(await Promise.race([waited, new Promise((go) => setTimeout(() => go('waits'), 150))])).toBe('waits');
    fs.rmSync(file);
    expect(await waited).toBe('released');
  });

  it('is told while git itself writes files', async () => {
    const folder = repository();
    // What git calls while it checks files out, with its lock held: it tells what it sees.
    fs.writeFileSync(path.join(folder, '.gitattributes'), '*.js filter=slow');
    git(folder, 'config', 'filter.slow.smudge', 'test -f .git/index.lock && echo held || echo free');
    git(folder, 'config', 'filter.slow.clean', 'cat');
    fs.rmSync(path.join(folder, 'b.js'));
    git(folder, 'checkout', '--', 'b.js');
    expect(fs.readFileSync(path.join(folder, 'b.js'), 'utf8')).toBe('held\n');
  });

  it('is told in further work trees by their own lock', () => {
    const folder = repository();
    const other = path.join(folderOf({}), 'other');
    git(folder, 'worktree', 'add', '-q', other, '-b', 'more');
    const lock = new CheckoutLock(path.join(other, 'app'));
    fs.writeFileSync(path.join(folder, '.git/index.lock'), '');
    expect(lock.isHeld).toBe(false);
    fs.writeFileSync(path.join(folder, '.git/worktrees/other/index.lock'), '');
    expect(lock.isHeld).toBe(true);
  });

  it('isn’t waited for where its lock was left behind, where there is no repository, or where nobody wants to know', async () => {
    const folder = repository();
    const file = path.join(folder, '.git/index.lock');
    fs.writeFileSync(file, '');
    await new CheckoutLock(folder).released(() => true);
    fs.utimesSync(file, new Date(), new Date(Date.now() - 120_000));
    expect(new CheckoutLock(folder).isHeld).toBe(false);
    expect(new CheckoutLock(folderOf({ 'a.js': '1' })).isHeld).toBe(false);
  });
});
