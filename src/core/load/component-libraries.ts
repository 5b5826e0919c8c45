/**
 * What a component of a library takes when it is drawn for the first time on a page where others of its kind were, in ms on the reference device: the average over a kit of
 * twelve that apps use much, measured in Chromium by `script/components.mjs --table`. Libraries that make styles in script, or draw much within a component, take ten times as long as others.
 * A name that ends with `/` stands for all packages that begin with it, of which the main one was measured.
 */
const EACH: readonly (readonly [name: string, ms: number])[] = [
  ['@chakra-ui/', 0.97],
  ['@fluentui/', 0.37],
  ['@mantine/', 0.89],
  ['@mui/', 0.39],
  ['@radix-ui/themes', 0.5],
  ['antd', 2.2],
  ['element-plus', 2.3],
  ['naive-ui', 1.3],
  ['primereact', 1.3],
  ['primevue', 2.2],
  ['quasar', 0.44],
  ['react-bootstrap', 0.11],
  ['vuetify', 1.9],
];

/** A component of any other package, each time: icons, links and wrappers are most of them. */
export const OTHER_COMPONENT = 0.2;

const exact = new Map(EACH.filter(([name]) => !name.endsWith('/')));
const families = EACH.filter(([name]) => name.endsWith('/'));

/** What drawing a component of a package takes each time, in ms on the reference device. */
export function componentPriceOf(name: string): number {
  return exact.get(name) ?? families.find(([family]) => name.startsWith(family))?.[1] ?? OTHER_COMPONENT;
}
