import { SCRIPT_PLACEMENTS } from '../snapshot/types.ts';
import { kilobytes } from '../text/amounts.ts';
import { amount, bytesOf, each, type Fields, oneOf, text } from '../text/fields.ts';
import { shortName } from '../text/short-name.ts';
import { checkTrigger, triggerPhrase } from '../vocabulary/triggers.ts';
import { checkHint } from './hint-check.ts';
import { hintSubject, hintWords } from './hints.ts';
import { checkImportChoice, importChoiceSubject, importChoiceWords } from './import-choice.ts';
import { checkMatch, matchWords } from './match.ts';
import { checkName } from './name-check.ts';
import { checkSettings, settingsWords } from './split-settings.ts';
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
  /** Checks one that came from outside; throws InputError naming the field. */
  check(item: Fields, at: string): DecisionOf<K>;
}

export const DECISIONS: { [K in DecisionKind]: DecisionEntry<K> } = {
  detach: {
    subject: importChoiceSubject,
    words: (d) => `detach ${importChoiceWords(d)}`,
    shipsBy: 'source edit',
    stage: 'imports and moments',
    check: (item, at) => ({ kind: 'detach', ...checkImportChoice(item, at) }),
  },
  join: {
    subject: importChoiceSubject,
    words: (d) => `join ${importChoiceWords(d)}`,
    shipsBy: 'source edit',
    stage: 'imports and moments',
    check: (item, at) => ({ kind: 'join', ...checkImportChoice(item, at) }),
  },
  trigger: {
    subject: ({ splitPoint }) => `trigger ${splitPoint}`,
    words: ({ splitPoint, fetch }) => `fetch ${shortName(splitPoint)} ${triggerPhrase(fetch)}`,
    shipsBy: 'source edit',
    stage: 'imports and moments',
    check: (item, at) => ({
      kind: 'trigger',
      splitPoint: text(item.splitPoint, `${at}.splitPoint`),
      fetch: checkTrigger(item.fetch, `${at}.fetch`),
    }),
  },
  split: {
    subject: ({ splitPoint }) => `split ${splitPoint}`,
    words: (d) => `${shortName(d.splitPoint)}: ${settingsWords(d)}`,
    shipsBy: 'source edit',
    stage: 'imports and moments',
    check: (item, at) => ({
      kind: 'split',
      splitPoint: text(item.splitPoint, `${at}.splitPoint`),
      ...checkSettings(item, at),
    }),
  },
  hint: {
    subject: ({ hint }) => hintSubject(hint),
    words: ({ hint }) => hintWords(hint),
    shipsBy: 'server or markup',
    stage: 'imports and moments',
    check: (item, at) => ({ kind: 'hint', hint: checkHint(item.hint, `${at}.hint`) }),
  },
  script: {
    subject: ({ script }) => `script ${script}`,
    words: ({ script, placement }) => `place ${script}: ${placement}`,
    shipsBy: 'server or markup',
    stage: 'imports and moments',
    check: (item, at) => ({
      kind: 'script',
      script: text(item.script, `${at}.script`),
      placement: oneOf(item.placement, SCRIPT_PLACEMENTS, `${at}.placement`),
    }),
  },
  loader: {
    subject: () => 'loader',
    words: ({ loader }) => (loader === 'listed' ? 'list whole load groups' : 'let imports be discovered'),
    shipsBy: 'build setting',
    stage: 'imports and moments',
    check: (item, at) => ({
      kind: 'loader',
      loader: oneOf(item.loader, ['listed', 'discovered'] as const, `${at}.loader`),
    }),
  },
  'put aside': {
    subject: ({ finding }) => `put aside ${finding}`,
    words: ({ finding, reason }) => `put aside: ${finding} (${reason || 'no reason given'})`,
    shipsBy: 'nothing to ship',
    stage: 'none',
    check: (item, at) => ({
      kind: 'put aside',
      finding: text(item.finding, `${at}.finding`),
      reason: item.reason === undefined ? '' : text(item.reason, `${at}.reason`),
    }),
  },
  'drop link': {
    subject: ({ rel, address }) => `drop link ${rel} ${address}`,
    words: ({ rel, address }) => `leave out the ${rel} of ${address}`,
    shipsBy: 'server or markup',
    stage: 'imports and moments',
    check: (item, at) => ({
      kind: 'drop link',
      rel: text(item.rel, `${at}.rel`),
      address: text(item.address, `${at}.address`),
    }),
  },
  'one version': {
    subject: (d) => `one version ${d.package}`,
    words: (d) => `one version of ${d.package}: that in ${d.keep}`,
    shipsBy: 'build setting',
    stage: 'ship',
    check: (item, at) => ({
      kind: 'one version',
      package: text(item.package, `${at}.package`),
      keep: text(item.keep, `${at}.keep`),
    }),
  },
  move: {
    subject: (d) => `move ${d.import}`,
    words: (d) => {
      const [from, what] = d.import.split('::');
      return `import ${shortName(what)} in ${shortName(d.to)}, not in ${shortName(from)}`;
    },
    shipsBy: 'source edit',
    stage: 'ship',
    check: (item, at) => ({ kind: 'move', import: text(item.import, `${at}.import`), to: text(item.to, `${at}.to`) }),
  },
  'no script': {
    subject: ({ module }) => `no script ${module}`,
    words: ({ module }) => `no script for ${shortName(module)}`,
    shipsBy: 'source edit',
    stage: 'ship',
    check: (item, at) => ({ kind: 'no script', module: text(item.module, `${at}.module`) }),
  },
  trim: {
    subject: ({ module }) => `trim ${module}`,
    words: ({ module }) => `trim ${module.slice(module.lastIndexOf('/') + 1)}`,
    shipsBy: 'source edit',
    stage: 'ship',
    check: (item, at) => ({ kind: 'trim', module: text(item.module, `${at}.module`) }),
  },
  'style in script': {
    subject: ({ match }) => `style in script ${matchWords(match)}`,
    words: ({ match }) => `styles of ${matchWords(match)} in script`,
    shipsBy: 'build setting',
    stage: 'ship',
    check: (item, at) => ({ kind: 'style in script', match: checkMatch(item.match, `${at}.match`) }),
  },
  gather: {
    subject: ({ name }) => `gather ${name}`,
    words: ({ match, name }) => `gather ${matchWords(match)} as “${name}”`,
    shipsBy: 'build setting',
    stage: 'files',
    check: (item, at) => ({
      kind: 'gather',
      name: checkName(item.name, `${at}.name`),
      match: checkMatch(item.match, `${at}.match`),
    }),
  },
  together: {
    subject: ({ modules }) => `together ${[...modules].sort().join(' ')}`,
    words: ({ modules }) => `keep ${modules.map(shortName).join(', ')} together`,
    shipsBy: 'build setting',
    stage: 'files',
    check: (item, at) => ({ kind: 'together', modules: each(item.modules, `${at}.modules`, text) }),
  },
  apart: {
    subject: ({ match }) => `apart ${matchWords(match)}`,
    words: ({ match }) => `keep ${matchWords(match)} apart`,
    shipsBy: 'build setting',
    stage: 'files',
    check: (item, at) => ({ kind: 'apart', match: checkMatch(item.match, `${at}.match`) }),
  },
  floor: {
    subject: () => 'floor',
    words: ({ bytes }) => `no chunk under ${kilobytes(bytes)}`,
    shipsBy: 'build setting',
    stage: 'files',
    check: (item, at) => ({ kind: 'floor', bytes: bytesOf(item.bytes, `${at}.bytes`) }),
  },
  ceiling: {
    subject: () => 'ceiling',
    words: ({ requests }) => `at most ${requests} chunks per moment`,
    shipsBy: 'build setting',
    stage: 'files',
    check: (item, at) => ({
      kind: 'ceiling',
      requests: Math.max(1, Math.round(amount(item.requests, `${at}.requests`, 10_000))),
    }),
  },
  copy: {
    subject: () => 'copy',
    words: ({ below }) => `copy what is shared under ${kilobytes(below)}`,
    shipsBy: 'build setting',
    stage: 'files',
    check: (item, at) => ({ kind: 'copy', below: bytesOf(item.below, `${at}.below`) }),
  },
  grain: {
    subject: () => 'grain',
    words: () => 'one file per module',
    shipsBy: 'build setting',
    stage: 'files',
    check: () => ({ kind: 'grain' }),
  },
  'chunk name': {
    subject: ({ chunk }) => `chunk name ${chunk}`,
    words: ({ name }) => `call a chunk “${name}”`,
    shipsBy: 'build setting',
    stage: 'files',
    check: (item, at) => ({
      kind: 'chunk name',
      chunk: text(item.chunk, `${at}.chunk`),
      name: checkName(item.name, `${at}.name`),
    }),
  },
};

/** All kinds of decisions. */
export const DECISION_KINDS = Object.keys(DECISIONS) as DecisionKind[];

/** The entry of a decision's own kind. */
export function entryOf<K extends DecisionKind>({ kind }: { kind: K }): DecisionEntry<K> {
  return DECISIONS[kind];
}
