import { decodedMappings, FlattenMap, type TraceMap } from '@jridgewell/trace-mapping';
import { Unreadable } from '../folder-files.ts';

/** One source of a map, as far as its file holds something of it. */
export interface MappedSource {
  /** As written in the map, with its root. */
  source: string;
  /** The source's text, where the map carries it. */
  content: string | null;
  /** Bytes of the file that come from it. */
  bytes: number;
  /** Those bytes as text, in the order of the file. */
  text: string;
}

export interface MapReading {
  sources: MappedSource[];
  /** Bytes that belong to no source. */
  unmapped: number;
  /** Mappings that point outside of the file or to a source that isn't there; they are left aside. */
  outside: number;
  mappings: number;
}

/**
 * Reads a source map (ECMA-426, index maps included) against the file that it belongs to: every byte of the file
 * belongs to the source of the mapping before it in its line. Throws Unreadable with the reason when the map can't be read.
 */
export function readMap(json: string, file: string): MapReading {
  const { map, mappings } = parseMap(json);
  const names = map.resolvedSources;
  const found = new Map<number, { pieces: string[] }>();
  const lines = file.split('\n');
  let outside = 0;
  let unmapped = 0;
  const give = (source: number, text: string) => {
    if (text === '') return;
    if (source < 0) {
      unmapped += Buffer.byteLength(text);
      return;
    }
    const known = found.get(source);
    if (known) known.pieces.push(text);
    else found.set(source, { pieces: [text] });
  };
  for (let at = lines.length; at < mappings.length; at++) outside += mappings[at].length;
  lines.forEach((line, at) => {
    // The line break goes with what stands before it.
    const text = at < lines.length - 1 ? `${line}\n` : line;
    let from = 0;
    let source = -1;
    for (const segment of mappings[at] ?? []) {
      const [column] = segment;
      const next = segment.length === 1 ? -1 : segment[1];
      if (column > line.length || next >= names.length) {
        outside++;
        continue;
      }
      if (next === source) continue;
      give(source, text.slice(from, column));
      from = column;
      source = next;
    }
    give(source, text.slice(from));
  });
  const sources = [...found].map(([index, { pieces }]): MappedSource => {
    const text = pieces.join('');
    const content: unknown = map.sourcesContent?.[index];
    return {
      source: names[index] ?? `source ${index}`,
      content: typeof content === 'string' ? content : null,
      bytes: Buffer.byteLength(text),
      text,
    };
  });
  return { sources, unmapped, outside, mappings: mappings.reduce((sum, line) => sum + line.length, 0) };
}

function parseMap(json: string): { map: TraceMap; mappings: ReturnType<typeof decodedMappings> } {
  const value = objectIn(json);
  const { version } = value;
  if (version !== 3) throw new Unreadable(`its version is ${short(version)}, not 3`);
  if (!isWritten(value)) throw new Unreadable('its mappings aren’t text');
  try {
    const map = new FlattenMap(value as unknown as ConstructorParameters<typeof FlattenMap>[0]);
    return { map, mappings: decodedMappings(map) };
  } catch {
    // What the package says holds the map whole.
    throw new Unreadable('its sources or mappings aren’t those of a source map');
  }
}

/** Whether the mappings of a map, or of each of its sections, are text as the standard has it; the package takes decoded ones as they are. */
function isWritten(map: Record<string, unknown>): boolean {
  if (!('sections' in map)) return typeof map.mappings === 'string';
  if (!Array.isArray(map.sections)) return false;
  return map.sections.every((section: unknown) => {
    const inner = typeof section === 'object' && section !== null && 'map' in section ? section.map : null;
    return typeof inner === 'object' && inner !== null && isWritten(inner as Record<string, unknown>);
  });
}

function objectIn(json: string): Record<string, unknown> {
  let value: unknown;
  try {
    // A guard against being read as a script, which the standard allows in front.
    value = JSON.parse(json.startsWith(")]}'") ? json.slice(json.indexOf('\n') + 1) : json);
  } catch {
    throw new Unreadable('it is no JSON');
  }
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new Unreadable('it is no object');
  return value as Record<string, unknown>;
}

function short(value: unknown): string {
  const text = JSON.stringify(value) ?? 'missing';
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
}

const NAME = 'sourceMappingURL=';

/** The address of a file's map as its last comment gives it; null without one. */
export function mapAddress(file: string): string | null {
  // Maps inside of files can be long; the comment is looked for from its beginning.
  const at = file.lastIndexOf(NAME);
  if (at < 0 || !/[#@]\s{0,4}$/.test(file.slice(Math.max(0, at - 6), at))) return null;
  const rest = file.slice(at + NAME.length).trimEnd();
  const address = (rest.endsWith('*/') ? rest.slice(0, -2) : rest).trimEnd();
  return address === '' || /[\s*]/.test(address) ? null : address;
}

/** The JSON inside a `data:` address; null for another kind of address. Throws when it is damaged. */
export function inlineMap(address: string): string | null {
  const comma = address.indexOf(',');
  if (!address.startsWith('data:application/json') || comma < 0) return null;
  const content = address.slice(comma + 1);
  return address.slice(0, comma).endsWith(';base64')
    ? Buffer.from(content, 'base64').toString('utf8')
    : decodeURIComponent(content);
}
