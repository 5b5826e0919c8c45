import path from 'node:path';
import zlib from 'node:zlib';
import { type AppNotes, NOTES_FILE } from '../core/formats/app-notes.ts';
import { EVALUATION_RATE } from '../core/sim/conditions.ts';
import type { ClassicScript, DocumentLink } from '../core/snapshot/document-types.ts';
import type { Failed } from '../core/snapshot/types.ts';
import { withoutQuery } from '../core/text/address.ts';
import { readInside } from './folder-files.ts';
import type { HtmlDocument } from './html-document.ts';
import { onNetwork } from './resolve.ts';

/** What a document brings beside the module graph. */
export interface DocumentExtras {
  scripts: ClassicScript[];
  links: DocumentLink[];
  failed: Failed[];
}

const SERVER_MS = 20;

/** Classic and inline scripts and links of a document, with sizes as far as their files are in the folder. */
export function documentExtras(
  root: string,
  document: string,
  realm: string,
  html: HtmlDocument,
  notes: AppNotes,
): DocumentExtras {
  const failed: Failed[] = html.troubles.map((t) => ({ path: document, ...t }));
  const scripts: ClassicScript[] = [];
  const add = (id: string, script: Omit<ClassicScript, 'id' | 'serverMs' | 'evidence'>, line: number) => {
    const known = notes.scripts.get(id) ?? {};
    const evidence = { path: document, line };
    scripts.push({ serverMs: SERVER_MS, ...script, ...known, id, evidence });
  };
  for (const tag of html.tags) {
    if (tag.kind !== 'script' || (tag.placement === 'module' && !onNetwork(tag.address))) continue;
    const id = tag.id ?? path.posix.basename(withoutQuery(tag.address)).replace(/\.\w+$/, '');
    const file = fileAt(root, tag.address);
    if (!file && notes.scripts.get(id)?.bytes === undefined) {
      const message = `the size of the script ${tag.address} isn't known; give it under Split, Scripts, or as scripts["${id}"].bytes in ${NOTES_FILE}`;
      failed.push({ path: document, line: tag.line, message });
    }
    const sizes = file
      ? { bytes: compressed(file), evaluationMs: cost(file.length) }
      : { bytes: null, evaluationMs: 0 };
    add(id, { name: id, address: tag.address, placement: tag.placement, ...sizes }, tag.line);
  }
  for (const { module, text, id, line } of html.inline) {
    if (module) continue;
    const name = id ?? `inline script, line ${line}`;
    const bytes = Buffer.byteLength(text);
    add(name, { name, address: '', placement: 'inlined', bytes, evaluationMs: cost(bytes) }, line);
  }
  const links = html.links.map(({ line, ...link }): DocumentLink => {
    const file = link.rel === 'preconnect' ? null : fileAt(root, link.address);
    return { ...link, realm, bytes: file && compressed(file), evidence: { path: document, line } };
  });
  return { scripts, links, failed };
}

/** An estimate at the device of factor 1, as for modules. */
function cost(bytes: number): number {
  return Math.round(bytes * EVALUATION_RATE.likely * 100) / 100;
}

function compressed(file: Buffer): number {
  return zlib.gzipSync(file).length;
}

/** A file that an address of the app's own origin names, in the folder or in its folder of public files. */
function fileAt(root: string, address: string): Buffer | null {
  if (onNetwork(address)) return null;
  let plain = withoutQuery(address);
  try {
    plain = decodeURI(plain);
  } catch {
    // Not encoded as addresses are: taken as it stands.
  }
  for (const folder of ['', 'public', 'static']) {
    try {
      return readInside(root, path.join(root, folder, plain));
    } catch {
      // It may lie in the next one; what is nowhere is told as a size that isn't known.
    }
  }
  return null;
}
