import type { Weight } from '../../chunks/carried.ts';
import type { Decision } from '../../plan/types.ts';
import type { Module } from '../../snapshot/module-types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import { shortName } from '../../text/short-name.ts';
import { type Block, START } from './types.ts';

/** More blocks than these of one band can't be told apart by eye, nor can those that are so small a share of it. */
const MOST_BLOCKS = 40;
const LIGHT = 0.004;
/** Fewer light ones than these aren't worth putting together. */
const LEAST_TOGETHER = 3;
/** Folders of the app as far down as this stand for their own. */
const DEPTH = 2;

interface Wanted {
  band: string;
  modules: readonly number[];
  open: ReadonlySet<string>;
  to: (module: number) => string | null;
  keptBy: (module: number) => string | null;
}

/** The modules of a band as blocks: by package and folder, those that are open by what is in them; the heaviest first. */
export function blocksOf(app: Snapshot, { band, modules, open, to, keptBy }: Wanted): Block[] {
  const blocks = new Map<string, Block>();
  for (const m of modules) {
    const module = app.modules[m];
    const { kind, of } = groupOf(module, open);
    const way = to(m);
    // What stays only because something else needs it as well stands apart from what would stay in any case.
    const kept = way === band ? keptBy(m) : null;
    const id = [band, kind, of, way === band ? (kept === null ? 'stays' : 'is kept') : 'goes'].join('\n');
    let block = blocks.get(id);
    if (!block) {
      block = { ...emptyBlock(app, band, kind, of), id, to: way, keptBy: kept };
      blocks.set(id, block);
    }
    add(block.weight, module);
    block.modules++;
  }
  const all = [...blocks.values()].sort((a, b) => b.weight.compressed - a.weight.compressed || (a.id < b.id ? -1 : 1));
  return open.has(`rest ${band}`) ? all : withRest(all, band);
}

interface Group {
  kind: Exclude<Block['kind'], 'rest'>;
  of: string;
}

/** What a module stands in: itself where its package or folder is open. */
function groupOf({ path, package: name }: Module, open: ReadonlySet<string>): Group {
  if (name !== null) return open.has(`package ${name}`) ? { kind: 'module', of: path } : { kind: 'package', of: name };
  const folders = path.split('/').slice(0, -1);
  for (let depth = Math.min(DEPTH, folders.length); depth <= folders.length; depth++) {
    const folder = folders.slice(0, depth).join('/');
    if (folder !== '' && !open.has(`folder ${folder}`)) return { kind: 'folder', of: folder };
  }
  return { kind: 'module', of: path };
}

function emptyBlock(app: Snapshot, band: string, kind: Group['kind'], of: string): Omit<Block, 'id' | 'to' | 'keptBy'> {
  const name = kind === 'package' ? of : kind === 'folder' ? of.split('/').slice(-1)[0] : shortName(of);
  return {
    ...{ kind, of, name, modules: 0, opens: kind !== 'module' },
    weight: { minified: 0, compressed: 0 },
    decisions: band === START ? outOf(app, kind, of) : [],
  };
}

/** What taking something out of the start decides: imports into a package, or all of a module. A folder has to be opened first. */
function outOf(app: Snapshot, kind: Block['kind'], of: string): Decision[] {
  if (kind === 'package') return [{ kind: 'detach', package: of }];
  if (kind !== 'module') return [];
  const isEntry = app.entries.some((e) => e.modules.includes(of));
  return isEntry ? [] : [{ kind: 'detach', module: of }];
}

/** The lightest blocks that stay, put together as one, so that a band stays legible; what goes is told apart in any case. */
function withRest(all: Block[], band: string): Block[] {
  const least = LIGHT * all.reduce((sum, b) => sum + b.weight.compressed, 0);
  const stays = (b: Block) => b.to === band && b.keptBy === null;
  const light = all.filter((b, at) => stays(b) && (at >= MOST_BLOCKS || b.weight.compressed < least));
  if (light.length < LEAST_TOGETHER) return all;
  const rest: Block = {
    ...{
      id: [band, 'rest'].join('\n'),
      kind: 'rest',
      name: `${light.length} lighter`,
      of: band,
      to: band,
      keptBy: null,
    },
    ...{ opens: true, decisions: [], modules: 0, weight: { minified: 0, compressed: 0 } },
  };
  for (const b of light) {
    rest.modules += b.modules;
    rest.weight.minified += b.weight.minified;
    rest.weight.compressed += b.weight.compressed;
  }
  return [...all.filter((b) => !light.includes(b)), rest];
}

/** The weight of modules together. */
export function weightOf(app: Snapshot, modules: readonly number[]): Weight {
  const sum = { minified: 0, compressed: 0 };
  for (const m of modules) add(sum, app.modules[m]);
  return sum;
}

function add(sum: Weight, { bytes }: Module): void {
  sum.minified += bytes.minified;
  sum.compressed += bytes.marginal;
}
