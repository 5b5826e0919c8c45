import { planned } from '../chunks/planned.ts';
import type { Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { Addresses, type FileMap } from './addresses.ts';
import { deployText, filesToDeploy } from './deploy.ts';
import { headerText, markupText, rulesText } from './markup.ts';
import { placedTags } from './placed-tags.ts';
import { plannedLinks } from './planned-links.ts';
import { decisionsByWay } from './report.ts';
import { hintScript, triggerScript } from './script.ts';
import { manifestText } from './tables.ts';
import type { Artefact, ShippedKind } from './types.ts';
import { SHIPPED } from './types.ts';

export interface Handoff {
  artefacts: Artefact[];
  /** Stand-ins that are to be replaced by real addresses. */
  standIns: string[];
  ways: ReturnType<typeof decisionsByWay>;
}

/** What each artefact is called, what it is for, and the file that it is saved as; in the order in which they are listed. */
const DESCRIBED: Record<ShippedKind, Omit<Artefact, 'kind' | 'text'>> = {
  markup: {
    name: 'Markup',
    use: 'Into the head of each route’s document: before its other tags or, where it says so, after them; and tags that are there already and change.',
    file: 'hints.html',
    mime: 'text/html',
  },
  headers: {
    name: 'Link headers',
    use: 'Sent with each route’s answer (RFC 8288).',
    file: 'link-headers.txt',
    mime: 'text/plain',
  },
  'early-hints': {
    name: 'Early hints',
    use: 'Sent as soon as the request is read (RFC 8297).',
    file: 'early-hints.txt',
    mime: 'text/plain',
  },
  'speculation-rules': {
    name: 'Speculation rules',
    use: 'Each route’s object into a script of type speculationrules.',
    file: 'speculation-rules.json',
    mime: 'application/json',
  },
  'hint-script': {
    name: 'Hints by script',
    use: 'A module that adds hints at their trigger, and those that data savers don’t get.',
    file: 'hints.js',
    mime: 'text/javascript',
  },
  triggers: {
    name: 'Import triggers',
    use: 'A module that begins deferred imports when the plan says.',
    file: 'import-triggers.js',
    mime: 'text/javascript',
  },
  manifest: {
    name: 'Manifest',
    use: 'Files of each route and split point, with their sizes and modules.',
    file: 'manifest.json',
    mime: 'application/json',
  },
  deploy: {
    name: 'Files to deploy',
    use: 'What the server has to offer with this plan: new files, changed ones, and those that go.',
    file: 'files-to-deploy.txt',
    mime: 'text/plain',
  },
};

/**
 * What a plan gives to the app and its server. Addresses are those of the real files where the snapshot or `files` knows them,
 * otherwise named stand-ins, which each artefact says at its top.
 */
export function handoff(app: Snapshot, plan: Plan, files: FileMap | null): Handoff {
  const { snapshot } = shipped(app, plan);
  const ships = planned(snapshot, plan);
  const { graph } = ships;
  const addresses = new Addresses(snapshot, graph, files);
  const routes = plannedLinks(ships, addresses);
  const texts: Record<ShippedKind, string> = {
    markup: [markupText(routes), placedTags(ships)].filter((t) => t !== '').join('\n\n'),
    headers: headerText(routes, 'headers'),
    'early-hints': headerText(routes, 'early-hints'),
    'speculation-rules': rulesText(routes),
    'hint-script': hintScript(routes),
    triggers: triggerScript(snapshot, plan, graph),
    manifest: manifestText(snapshot, plan, graph, addresses),
    deploy: deployText(snapshot.base, filesToDeploy(app, snapshot, graph, addresses, files)),
  };
  return {
    artefacts: SHIPPED.map((kind) => ({
      kind,
      ...DESCRIBED[kind],
      text: withNote(kind, texts[kind], addresses.standIns),
    })),
    standIns: [...addresses.standIns],
    ways: decisionsByWay(app, plan),
  };
}

const NOTES: Partial<Record<ShippedKind, (words: string) => string>> = {
  markup: (words) => `<!-- ${words} -->`,
  headers: (words) => `# ${words}`,
  'early-hints': (words) => `# ${words}`,
  deploy: (words) => `# ${words}`,
  'hint-script': (words) => `// ${words}`,
};

/** Says at the top that addresses are stand-ins, where any are. */
function withNote(kind: ShippedKind, text: string, standIns: ReadonlySet<string>): string {
  const note = NOTES[kind];
  if (!note || ![...standIns].some((s) => text.includes(s))) return text;
  return `${note('Names in {{…}} stand for files of the build: replace each by the address of the file that holds it.')}\n${text}`;
}
