import { constantText, isNode, nameOf, type SyntaxNode } from '../syntax.ts';

/** Around the key of a message that stands in words until all messages of the app are known; no program shows these letters. */
const [OPEN, ELSE, CLOSE] = ['\uE000', '\uE001', '\uE002'];
const KEYED = new RegExp(`${OPEN}([^${OPEN}${ELSE}]*)${ELSE}([^${OPEN}${CLOSE}]*)${CLOSE}`, 'g');
const MARKS = new RegExp(`[${OPEN}${ELSE}${CLOSE}]`, 'g');
const LONGEST = 200;

/** Functions that give the text of a message, by the names that several libraries use. */
const TRANSLATES =
  /^(t|\$t|tc|\$tc|_|__|\$_|i18n|translate|\$translate|instant|gettext|\$gettext|formatMessage|message|msg|localize)$/;
/** Attributes of elements that show a message, by the names that several libraries use. */
const KEYS = ['i18nKey', 'id', 'keyName', 'keypath', 'path'];
const MESSAGES = /^(Formatted(HTML)?Message|Trans|Translate|Translation|T|Message|Localized|I18nT|i18n-t)$/;

/** What stands for a message in words: its key, and what it says where no message has that key. */
function keyed(key: string, otherwise: string): string {
  const [name, text] = [key, otherwise].map((t) => t.slice(0, LONGEST).replace(MARKS, ''));
  return `${OPEN}${name}${ELSE}${text}${CLOSE}`;
}

/**
 * What an expression shows: its text, or the message that a call names (`t('log.add')`, `formatMessage({ id, defaultMessage })`, `` t`Add` ``),
 * which stands as its key until `said`; null where no code tells.
 */
export function shownBy(expression: unknown): string | null {
  const text = constantText(expression);
  if (text !== null) return isKey(text) ? keyed(text, text) : text;
  if (!isNode(expression)) return null;
  if (expression.type === 'TaggedTemplateExpression' && isTranslator(expression.tag)) {
    const words = constantText(expression.quasi);
    return words === null ? null : keyed(words, words);
  }
  if (expression.type !== 'CallExpression' || !isTranslator(expression.callee)) return null;
  const [first, second] = expression.arguments as SyntaxNode[];
  const key = constantText(first) ?? fieldOf(first, 'id');
  const written = fieldOf(first, 'defaultMessage') ?? constantText(second) ?? fieldOf(second, 'defaultValue');
  const known = key ?? written;
  return known === null ? null : keyed(known, written ?? plain(known));
}

/** The message that an element shows by its attributes: `<FormattedMessage id="log.add" defaultMessage="Add" />`; null for any other element. */
export function shownByElement(opening: SyntaxNode): string | null {
  if (!MESSAGES.test(nameOf(opening.name) ?? '')) return null;
  const given = new Map(
    (opening.attributes as SyntaxNode[]).map((a) => {
      const value = isNode(a.value) && a.value.type === 'JSXExpressionContainer' ? a.value.expression : a.value;
      return [nameOf(a.name), constantText(value)];
    }),
  );
  const key = KEYS.map((name) => given.get(name)).find((k) => k != null);
  const written = given.get('defaultMessage') ?? given.get('defaults');
  return key == null && written == null ? null : keyed(key ?? written!, written ?? plain(key!));
}

/** Words with the messages that their keys stand for. `messageOf`: the message with a key, undefined where there is none. */
export function said(words: string, messageOf: (key: string) => string | undefined): string {
  return words.replace(KEYED, (_, key: string, otherwise: string) => messageOf(key) ?? otherwise);
}

/** Whether a key of a message stands in words. */
export const hasKey = (words: string): boolean => words.includes(OPEN);

/** A name of several parts, as only keys are: `log.add`. */
function isKey(text: string): boolean {
  return /^\w[\w-]*(?:[.:][\w-]+)+$/.test(text);
}

/** What a key says by itself: of `log.addEntry` that is `add entry`; a whole sentence is its own message. */
function plain(key: string): string {
  if (/\s/.test(key) || !/[.:_-]|[a-z][A-Z]/.test(key)) return key;
  const last = key.split(/[.:]/).findLast((part) => part !== '') ?? key;
  return last
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[_-]+/g, ' ')
    .toLowerCase();
}

function isTranslator(callee: unknown): boolean {
  const name = isNode(callee) && callee.type === 'MemberExpression' ? nameOf(callee.property) : nameOf(callee);
  return TRANSLATES.test(name ?? '');
}

function fieldOf(node: SyntaxNode | undefined, name: string): string | null {
  if (node?.type !== 'ObjectExpression') return null;
  return constantText((node.properties as SyntaxNode[]).find((p) => nameOf(p.key) === name)?.value);
}
