/**
 * What people do in a component, in the words on its elements, by what it calls of who draws it (`emit('add')`, `onAdd()`, `props.onAdd`); under ANY what it does with
 * all else that it is handed. Names without signs and in small letters, so that `@add-row`, `onAddRow` and `addRow` are one.
 */
export type InnerActs = Readonly<Record<string, string>>;

export const ANY = '*';
/** So far it is followed from component to component. */
const DEEPEST = 5;

/** Around what is done in a component, in words, until it is known what that draws; no program shows these letters. */
const [OPEN, NAME, EVENT, ELSE, CLOSE] = ['\uE010', '\uE011', '\uE012', '\uE013', '\uE014'];
const INNER = new RegExp(
  `${OPEN}([^${OPEN}${NAME}]*)${NAME}([^${OPEN}${EVENT}]*)${EVENT}([^${OPEN}${ELSE}]*)${ELSE}([^${OPEN}${CLOSE}]*)${CLOSE}`,
  'g',
);

/** What stands for an act in a component, by the component's name here and that of the handler; `otherwise`: what is said where the component doesn't tell. */
export function innerAct(component: string, handler: string, otherwise: string): string {
  return `${OPEN}${component}${NAME}${EVENT}${plainName(handler)}${ELSE}${otherwise}${CLOSE}`;
}

/** The same words, with components by where they are imported from. Those of the module itself stay as they are, and tell nothing. */
export function withSpecifiers(
  words: string,
  bindings: ReadonlyMap<string, string>,
  names: ReadonlyMap<string, string>,
): string {
  return words.replace(INNER, (_, local: string, _name, event: string, otherwise: string) => {
    const [specifier, name] = [bindings.get(local), names.get(local)];
    if (specifier === undefined) return otherwise;
    return `${OPEN}${specifier}${NAME}${name === '*' ? '' : (name ?? '')}${EVENT}${event}${ELSE}${otherwise}${CLOSE}`;
  });
}

/** Where words of a component lead to: the module that defines it, with what people do in it. */
export type InnerOf<P> = (
  place: P,
  component: { specifier: string; name?: string },
) => { place: P; acts: InnerActs } | undefined;

/** Words with what is done in the components that they name. `place`: where they stand. */
export function withInnerActs<P>(words: string, place: P, innerOf: InnerOf<P>, depth = 0): string {
  return words.replace(INNER, (_, specifier: string, name: string, event: string, otherwise: string) => {
    const inner = depth < DEEPEST ? innerOf(place, { specifier, ...(name === '' ? {} : { name }) }) : undefined;
    const found = inner && (ownOf(inner.acts, event) ?? ownOf(inner.acts, ANY));
    return found === undefined ? otherwise : withInnerActs(found, inner!.place, innerOf, depth + 1);
  });
}

/** Words in which no component tells more than its name. */
export function withoutInnerActs(words: string): string {
  return words.replace(INNER, '$4');
}

/** An event's or handler's name, however it is written. */
export function plainName(name: string): string {
  return name
    .replace(/^on(?=[A-Z:])/, '')
    .replace(/[^A-Za-z0-9]/g, '')
    .toLowerCase();
}

function ownOf(acts: InnerActs, name: string): string | undefined {
  return Object.hasOwn(acts, name) ? acts[name] : undefined;
}
