import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { InputError } from '../../core/errors.ts';
import type { Read } from '../process/work.ts';
import { unpack } from '../unpack/unpack.ts';
import { git } from './git.ts';

/** An app's folder as a commit has it. */
export interface AtCommit {
  /** The commit, whole. */
  commit: string;
  read: Read;
}

/** Names of installed folders that are looked into for packages. */
const MODULES = 'node_modules';
/** Packages that come to light only when others are read: so often it is looked again. */
const MOST_ROUNDS = 6;

/**
 * Reads an app's folder as a commit of its repository has it, without touching the work tree. Packages are those that are installed now: commits
 * don't hold them. `around`: the folder around the app whose files may be read too; `read`: how a folder is read. Throws InputError where the
 * folder is in no repository, or there is no such commit.
 */
export async function readAtCommit(
  folder: string,
  ref: string,
  around: string | null,
  read: (folder: string, around: string | null) => Promise<Read>,
): Promise<AtCommit> {
  const app = fs.realpathSync(folder);
  const outer = around === null ? app : fs.realpathSync(path.resolve(app, around));
  const top = await git(app, ['rev-parse', '--show-toplevel']).catch(() => null);
  if (top === null)
    throw new InputError(
      'Not in a repository',
      'To compare with a commit, the folder has to be in a git repository.',
      folder,
    );
  const commit = await git(app, ['rev-parse', '--verify', '--quiet', '--end-of-options', `${ref}^{commit}`]).catch(
    () => {
      throw new InputError(
        'No such commit',
        'Name a commit, a branch or a tag of this repository. Of a shallow clone, fetch its history first.',
        ref,
      );
    },
  );
  const place = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-commit-'));
  try {
    const inside = path.relative(fs.realpathSync(top), outer);
    const archive = path.join(place, 'commit.tar.gz');
    await git(top, ['archive', '--format=tar.gz', '-o', archive, commit, ...(inside === '' ? [] : [inside])]).catch(
      () => {
        throw new InputError('Not in that commit', `The commit ${ref} has no folder ${inside}.`, ref);
      },
    );
    const root = path.join(place, 'tree');
    // Whatever its name: where one folder holds all, it is that which counts.
    await unpack(archive, 'commit.tar.gz', root);
    const there = path.join(root, inside);
    const own = path.join(there, path.relative(outer, app));
    if (!fs.existsSync(own)) throw new InputError('Not in that commit', `The commit ${ref} has no such folder.`, ref);
    return {
      commit,
      read: await withPackages({ from: outer, to: there, app: own }, around === null ? null : there, read),
    };
  } finally {
    fs.rmSync(place, { recursive: true, force: true });
  }
}

/** Reads a copy of a folder, and brings along what it misses of what is installed beside the original, until it misses nothing more. */
async function withPackages(
  { from, to, app }: { from: string; to: string; app: string },
  around: string | null,
  read: (folder: string, around: string | null) => Promise<Read>,
): Promise<Read> {
  const brought = new Set<string>();
  for (const modules of modulesFolders(from))
    for (const name of namedIn(app, to)) bring(from, to, path.join(modules, name), brought);
  let made = await read(app, around);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const before = brought.size;
    for (const { from: by, specifier } of made.snapshot.unresolved) {
      const name = /^(@[^/]+\/[^/]+|[^./@#~][^/]*)/.exec(specifier)?.[0];
      if (name === undefined) continue;
      const importer = path.dirname(path.join(app, by));
      for (let at = importer; at.startsWith(to); at = path.dirname(at))
        bring(from, to, path.join(path.relative(to, at), MODULES, name), brought);
    }
    if (brought.size === before) break;
    made = await read(app, around);
  }
  return made;
}

/** The folders of installed packages of a tree's own packages, from the tree's top. */
function modulesFolders(top: string): string[] {
  const found: string[] = [];
  const look = (folder: string, depth: number) => {
    for (const entry of fs.readdirSync(path.join(top, folder), { withFileTypes: true })) {
      if (!entry.isDirectory() || entry.name === '.git') continue;
      const own = path.join(folder, entry.name);
      if (entry.name === MODULES) found.push(own);
      else if (depth > 0) look(own, depth - 1);
    }
  };
  look('', 3);
  return found;
}

/** Packages that an app, and the folders around it, say that they ship; tools are large, and come where something asks for them. */
function namedIn(app: string, top: string): string[] {
  const names = new Set<string>();
  for (let at = app; at.startsWith(top); at = path.dirname(at)) {
    try {
      const described = JSON.parse(fs.readFileSync(path.join(at, 'package.json'), 'utf8'));
      for (const name of Object.keys({ ...described.dependencies, ...described.peerDependencies })) names.add(name);
    } catch {
      // None, or a broken one: the reading tells that.
    }
  }
  return [...names];
}

/** Brings an installed package to the same place of a copy; where it is a link, what it leads to as well. */
function bring(from: string, to: string, folder: string, brought: Set<string>): void {
  if (brought.has(folder)) return;
  const [source, target] = [path.join(from, folder), path.join(to, folder)];
  const stat = fs.lstatSync(source, { throwIfNoEntry: false });
  if (!stat || fs.existsSync(target)) return;
  brought.add(folder);
  fs.mkdirSync(path.dirname(target), { recursive: true });
  if (stat.isSymbolicLink()) {
    const leads = path.relative(from, fs.realpathSync(source));
    if (leads.startsWith('..')) return;
    fs.symlinkSync(path.relative(path.dirname(folder), leads), target);
    // What a commit holds itself is there already.
    if (leads.split(path.sep).includes(MODULES)) bring(from, to, leads, brought);
    return;
  }
  fs.cpSync(source, target, {
    recursive: true,
    mode: fs.constants.COPYFILE_FICLONE,
    filter: (file) => path.basename(file) !== MODULES || file === source,
  });
}
