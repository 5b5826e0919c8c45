import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

const made: string[] = [];

/** A folder of its own for a test, with these files in it. */
export function folderOf(files: Record<string, string>): string {
  const root = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-'));
  made.push(root);
  for (const [name, text] of Object.entries(files)) {
    const file = path.join(root, name);
    fs.mkdirSync(path.dirname(file), { recursive: true });
    fs.writeFileSync(file, text);
  }
  return root;
}

/** Removes the folders that tests made. */
export function removeFolders(): void {
  for (const root of made.splice(0)) fs.rmSync(root, { recursive: true, force: true });
}

export const SAMPLE = path.resolve('examples/saltmarsh-ferries');
