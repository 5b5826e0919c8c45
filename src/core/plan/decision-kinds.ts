import { kilobytes } from '../text/amounts.ts';
import { shortName } from '../text/short-name.ts';
import { triggerPhrase } from '../vocabulary/triggers.ts';
import { hintSubject, hintWords } from './hints.ts';
import { importChoiceSubject, importChoiceWords } from './import-choice.ts';
import { matchWords } from './match.ts';
import { settingsWords } from './split-settings.ts';
import type { DecisionKind, DecisionOf, ShipsBy } from './types.ts';

/** All that is the same wherever a kind of decision is used. */
interface DecisionEntry<K extends DecisionKind> {
  /** What it is about: two decisions with the same subject contradict each other, the later one holds. */
  subject(decision: DecisionOf<K>): string;
  /** In words, for lists, undo and reports. */
  words(decision: DecisionOf<K>): string;
  shipsBy: ShipsBy;
  /** At which stage it is followed. */
  stage: 'ship' | 'imports and moments' | 'files' | 'none';
}

export const DECISIONS: { [K in DecisionKind]: DecisionEntry<K> } = {
  detach: {
    subject: importChoiceSubject,
    words: (d) => `detach ${importChoiceWords(d)}`,
    shipsBy: 'source edit',
    stage: 'imports and moments',
  },
  join: {
    subject: importChoiceSubject,
    words: (d) => `join ${importChoiceWords(d)}`,
    shipsBy: 'source edit',
    stage: 'imports and moments',
  },
  trigger: {
    subject: ({ splitPoint }) => `trigger ${splitPoint}`,
    words: ({ splitPoint, fetch }) => `fetch ${shortName(splitPoint)} ${triggerPhrase(fetch)}`,
    shipsBy: 'source edit',
    stage: 'imports and moments',
  },
  split: {
    subject: ({ splitPoint }) => `split ${splitPoint}`,
    words: (d) => `${shortName(d.splitPoint)}: ${settingsWords(d)}`,
    shipsBy: 'source edit',
    stage: 'imports and moments',
  },
  hint: {
    subject: ({ hint }) => hintSubject(hint),
    words: ({ hint }) => hintWords(hint),
    shipsBy: 'server or markup',
    stage: 'imports and moments',
  },
  script: {
    subject: ({ script }) => `script ${script}`,
    words: ({ script, placement }) => `place ${script}: ${placement}`,
    shipsBy: 'server or markup',
    stage: 'imports and moments',
  },
  loader: {
    subject: () => 'loader',
    words: ({ loader }) => (loader === 'listed' ? 'list whole load groups' : 'let imports be discovered'),
    shipsBy: 'build setting',
    stage: 'imports and moments',
  },
  'put aside': {
    subject: ({ finding }) => `put aside ${finding}`,
    words: ({ finding, reason }) => `put aside: ${finding} (${reason || 'no reason given'})`,
    shipsBy: 'nothing to ship',
    stage: 'none',
  },
  'drop link': {
    subject: ({ rel, address }) => `drop link ${rel} ${address}`,
    words: ({ rel, address }) => `leave out the ${rel} of ${address}`,
    shipsBy: 'server or markup',
    stage: 'imports and moments',
  },
  'one version': {
    subject: (d) => `one version ${d.package}`,
    words: (d) => `one version of ${d.package}: that in ${d.keep}`,
    shipsBy: 'build setting',
    stage: 'ship',
  },
  move: {
    subject: (d) => `move ${d.import}`,
    words: (d) => {
      const [from, what] = d.import.split('::');
      return `import ${shortName(what)} in ${shortName(d.to)}, not in ${shortName(from)}`;
    },
    shipsBy: 'source edit',
    stage: 'ship',
  },
  'no script': {
    subject: ({ module }) => `no script ${module}`,
    words: ({ module }) => `no script for ${shortName(module)}`,
    shipsBy: 'source edit',
    stage: 'ship',
  },
  trim: {
    subject: ({ module }) => `trim ${module}`,
    words: ({ module }) => `trim ${module.slice(module.lastIndexOf('/') + 1)}`,
    shipsBy: 'source edit',
    stage: 'ship',
  },
  'style in script': {
    subject: ({ match }) => `style in script ${matchWords(match)}`,
    words: ({ match }) => `styles of ${matchWords(match)} in script`,
    shipsBy: 'build setting',
    stage: 'ship',
  },
  gather: {
    subject: ({ name }) => `gather ${name}`,
    words: ({ match, name }) => `gather ${matchWords(match)} as “${name}”`,
    shipsBy: 'build setting',
    stage: 'files',
  },
  together: {
    subject: ({ modules }) => `together ${[...modules].sort().join(' ')}`,
    words: ({ modules }) => `keep ${modules.map(shortName).join(', ')} together`,
    shipsBy: 'build setting',
    stage: 'files',
  },
  apart: {
    subject: ({ match }) => `apart ${matchWords(match)}`,
    words: ({ match }) => `keep ${matchWords(match)} apart`,
    shipsBy: 'build setting',
    stage: 'files',
  },
  floor: {
    subject: () => 'floor',
    words: ({ bytes }) => `no chunk under ${kilobytes(bytes)}`,
    shipsBy: 'build setting',
    stage: 'files',
  },
  ceiling: {
    subject: () => 'ceiling',
    words: ({ requests }) => `at most ${requests} chunks per moment`,
    shipsBy: 'build setting',
    stage: 'files',
  },
  copy: {
    subject: () => 'copy',
    words: ({ below }) => `copy what is shared under ${kilobytes(below)}`,
    shipsBy: 'build setting',
    stage: 'files',
  },
  grain: {
    subject: () => 'grain',
    words: () => 'one file per module',
    shipsBy: 'build setting',
    stage: 'files',
  },
  'chunk name': {
    subject: ({ chunk }) => `chunk name ${chunk}`,
    words: ({ name }) => `call a chunk “${name}”`,
    shipsBy: 'build setting',
    stage: 'files',
  },
};

/** All kinds of decisions. */
export const DECISION_KINDS = Object.keys(DECISIONS) as DecisionKind[];

/** The entry of a decision's own kind. */
export function entryOf<K extends DecisionKind>({ kind }: { kind: K }): DecisionEntry<K> {
  return DECISIONS[kind];
}
