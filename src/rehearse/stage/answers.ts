import fs from 'node:fs';
import path from 'node:path';
import mime from 'mime';
import { InputError } from '../../core/errors.ts';
import { withoutQuery } from '../../core/text/address.ts';
import { operationOf, withOperation } from '../../core/text/query-operation.ts';
import type { Sent } from '../serve/types.ts';
import type { DataFrom } from './data-from.ts';

/** What was, or would be, answered to a call for data. */
export interface DataAnswer {
  status: number;
  type: string;
  body: Buffer;
}

/** Gives the answer to a call of an address (path and query) of the app’s own, and what is sent there; null where there is none. */
export type DataAnswers = (address: string, sent?: Sent) => Promise<DataAnswer | null>;

/** Answers from a folder, a recording or a server. Refuses what can’t be read, with what to do. */
export function dataAnswers(from: DataFrom): DataAnswers {
  if ('folder' in from) return fromFolder(from.folder);
  if ('har' in from) return fromRecording(from.har);
  return fromServer(from.address);
}

/**
 * Files below a folder, by the path of the call: as it is, or with `.json` after it. The answer to a query of GraphQL is a file with its name, in a folder
 * for the path.
 */
function fromFolder(folder: string): DataAnswers {
  if (!fs.statSync(folder, { throwIfNoEntry: false })?.isDirectory())
    throw new InputError(
      'No folder with answers',
      `There is no folder ${folder}. Give one whose files are the answers, by their addresses.`,
      'data',
    );
  const root = fs.realpathSync(folder);
  return async (address, sent) => {
    const { pathname } = new URL(address, 'http://app');
    const operation = operationOf(sent?.text);
    const paths = operation === null ? [pathname] : [`${pathname}/${operation}`, pathname];
    for (const name of paths.flatMap((p) => [p, `${p}.json`])) {
      const file = path.join(root, decodeURIComponent(name));
      if (!file.startsWith(root + path.sep) || !fs.statSync(file, { throwIfNoEntry: false })?.isFile()) continue;
      return { status: 200, type: mime.getType(file) ?? 'application/json', body: fs.readFileSync(file) };
    }
    return null;
  };
}

interface RecordedEntry {
  request?: { url?: string; postData?: { text?: string } };
  response?: { status?: number; content?: { mimeType?: string; text?: string; encoding?: string } };
}

/** Answers as they were recorded (HAR 1.2), by path and query, else by path alone; of several the first. */
function fromRecording(file: string): DataAnswers {
  let entries: RecordedEntry[];
  try {
    entries = JSON.parse(fs.readFileSync(file, 'utf8')).log.entries;
  } catch {
    throw new InputError(
      'Not a recording',
      `${file} isn’t an HTTP Archive (HAR) with log.entries. Record the app’s requests with their answers.`,
      'data',
    );
  }
  const known = new Map<string, DataAnswer>();
  for (const { request, response } of entries) {
    const { content, status = 200 } = response ?? {};
    if (!request?.url || content?.text === undefined || !URL.canParse(request.url)) continue;
    const { pathname, search } = new URL(request.url);
    const body = Buffer.from(content.text, content.encoding === 'base64' ? 'base64' : 'utf8');
    const operation = operationOf(request.postData?.text);
    const answer = { status, type: content.mimeType ?? 'application/json', body };
    for (const key of [pathname + search, pathname].map((a) => withOperation(a, operation)))
      if (!known.has(key)) known.set(key, answer);
  }
  return async (address, sent) => {
    const operation = operationOf(sent?.text);
    const keys = [address, withoutQuery(address)].map((a) => withOperation(a, operation));
    return keys.map((key) => known.get(key)).find((answer) => answer !== undefined) ?? null;
  };
}

/** Passes calls on to a server that the person names. */
function fromServer(address: string): DataAnswers {
  if (!URL.canParse(address) || !/^https?:/.test(address))
    throw new InputError(
      'Not an address',
      `${address} is no address of a server, as in http://localhost:4000.`,
      'data',
    );
  return async (called, sent) => {
    const headers: Record<string, string> = sent?.type ? { 'content-type': sent.type } : {};
    const body = sent ? { method: sent.method, body: sent.text, headers } : {};
    try {
      const response = await fetch(new URL(called, address), { redirect: 'follow', ...body });
      const type = response.headers.get('content-type') ?? 'application/json';
      return { status: response.status, type, body: Buffer.from(await response.arrayBuffer()) };
    } catch {
      return null;
    }
  };
}
