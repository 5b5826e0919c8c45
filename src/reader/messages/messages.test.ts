// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code of an app
import { saidIn, wordsIn } from '../parts/words.ts';
import { parse } from '../script/parse.ts';
import { type SyntaxNode, walk } from '../syntax.ts';
import { Messages } from './messages.ts';

/** What the words of a button are, in markup, with these files of messages. */
function wordsOfButton(markup: string, files: Record<string, string> = {}): string {
  const messages = new Messages();
  for (const [file, text] of Object.entries(files)) messages.take(file, text);
  let button: SyntaxNode | null = null;
  walk(parse('a.jsx', `const a = <button>${markup}</button>;`).program(), (node) => {
    if (node.type === 'JSXElement') button ??= node;
  });
  return saidIn(wordsIn(button!), messages.at);
}

const ENGLISH = {
  'src/locales/en.json': JSON.stringify({ log: { add: 'Add an entry', more: 'Show {n} more', 'old.one': 'Former' } }),
};

describe('words that are messages of a language', () => {
  it.each([
    ["{t('log.add')}", 'Add an entry'],
    ["{$t('log.add')}", 'Add an entry'],
    ["{i18n.t('log.add')}", 'Add an entry'],
    ["{t('common:log.add')}", 'Add an entry'],
    ['{t(`log.add`)}', 'Add an entry'],
    ["{intl.formatMessage({ id: 'log.add' })}", 'Add an entry'],
    ['<FormattedMessage id="log.add" defaultMessage="Add" />', 'Add an entry'],
    ['<Trans i18nKey="log.add">Add</Trans>', 'Add an entry'],
    ['<b><Trans i18nKey="log.add">Add <i>one</i></Trans></b> now', 'Add an entry now'],
    ["{t('log.more', { n: 3 })}", 'Show … more'],
    ["{t('log.old.one')}", 'Former'],
    ["+ {t('log.add')}", '+ Add an entry'],
    ["{'log.add'}", 'Add an entry'],
  ])('%s is %s', (markup, words) => expect(wordsOfButton(markup, ENGLISH)).toBe(words));

  it.each([
    ["{t('log.addEntry')}", 'add entry'],
    ["{t('Add an entry')}", 'Add an entry'],
    ["{t('Add')}", 'Add'],
    ["{t('add', 'Add one')}", 'Add one'],
    ["{t('add', { defaultValue: 'Add one' })}", 'Add one'],
    ["{intl.formatMessage({ id: 'x', defaultMessage: 'Add one' })}", 'Add one'],
    ['{t`Add one`}', 'Add one'],
    ["{format('log.add')}", ''],
    ["{'log.add'}", 'log.add'],
    ['Show {count} more', 'Show … more'],
    ['{`Show ${count} more`}', 'Show … more'],
    ['{icon} Add {count} {name}', 'Add'],
    ['{label}', ''],
  ])('without messages %s is %s', (markup, words) => expect(wordsOfButton(markup)).toBe(words));

  it.each<[string, Record<string, string>]>([
    ['objects in scripts', { 'src/i18n.ts': "export default { en: { log: { add: 'Add an entry' } } } as const;" }],
    [
      'several languages in one script',
      {
        'src/i18n.js': "create({ messages: { de: { log: { add: 'Neu' } }, en: { log: { 'add': 'Add an entry' } } } })",
      },
    ],
    ['flat keys', { 'lang/en.json': '{ "log.add": "Add an entry" }' }],
    ['extracted messages', { 'lang/en.json': '{ "log.add": { "message": "Add an entry", "description": "a.b" } }' }],
    ['a namespace around', { 'public/locales/en/app.json': '{ "app": { "log": { "add": "Add an entry" } } }' }],
    [
      'the first of several languages',
      { 'en.json': '{"log":{"add":"Add an entry"}}', 'de.json': '{"log":{"add":"Neu"}}' },
    ],
    ['a broken file beside', { 'lang/en-GB.json': '{ "log":', 'lang/en.json': '{ "log": { "add": "Add an entry" } }' }],
    ['forms for numbers', { 'lang/en.json': '{ "log": { "add": "Add an entry | Add {n} entries" } }' }],
    ['markup in messages', { 'lang/en.json': '{ "log": { "add": "Add <b>an</b> entry" } }' }],
  ])('are found with %s', (_, files) => expect(wordsOfButton("{t('log.add')}", files)).toBe('Add an entry'));

  it('are looked for in no file that nests without end, and quickly where thousands end alike', () => {
    const deep = 20_000;
    const many = Object.fromEntries(Array.from({ length: 150_000 }, (_, i) => [`page${i}`, { title: `Page ${i}` }]));
    const files = {
      'deep/en.json': `${'{"a":'.repeat(deep)}1${'}'.repeat(deep)}`,
      'deep/en.js': `x = ${'['.repeat(deep)}1${']'.repeat(deep)}`,
      'en.json': JSON.stringify({ ...many, log: { add: 'Add an entry' } }),
    };
    expect(wordsOfButton("{t('log.add')}", files)).toBe('Add an entry');
    expect(wordsOfButton("{t('page7.title')}", files)).toBe('Page 7');
    expect(wordsOfButton("{t('title')}", files)).toBe('title');
  });

  it('aren’t taken where several say something else', () => {
    const files = { 'en.json': '{ "a": { "log": { "add": "One" } }, "b": { "log": { "add": "Other" } } }' };
    expect(wordsOfButton("{t('log.add')}", files)).toBe('add');
  });
});
