import type { Fallback } from '../core/plan/types.ts';
import type { FileEdits } from './file-edits.ts';
import type { Wrapper } from './wrapper.ts';

/** A component that stands for a deferred one by its name. */
export interface StandIn {
  /** The name that the file uses. */
  local: string;
  /** The name of the deferred component itself, which nothing else has. */
  inner: string;
  wrapper: Wrapper;
  fallback: Fallback | undefined;
}

/** `const Part = (given) => <Suspense …><PartLater {...given} /></Suspense>;`: it brings its own boundary to wherever it is drawn. */
export function boundaryLines(edits: FileEdits, part: StandIn): string[] {
  return [`const ${part.local} = (given${givenType(edits, part)}) => ${drawn(edits, part)};`];
}

/**
 * A component that keeps its place until that comes into view, and only then draws the deferred one, which is fetched by that.
 * React's own way: a reference to the place, an effect that watches it.
 */
export function inViewLines(edits: FileEdits, part: StandIn): string[] {
  const { from } = part.wrapper;
  const use = (name: string) => edits.use(name, from) ?? name;
  const type = edits.file.isTyped ? '<HTMLDivElement>' : '';
  return [
    `function ${part.local}(given${givenType(edits, part)}) {`,
    `  const [inView, setInView] = ${use('useState')}(false);`,
    `  const place = ${use('useRef')}${type}(null);`,
    `  ${use('useEffect')}(() => {`,
    `    if (inView || !place.current) return;`,
    `    const seen = new IntersectionObserver((entries) => {`,
    `      if (entries.some((entry) => entry.isIntersecting)) setInView(true);`,
    `    });`,
    `    seen.observe(place.current);`,
    `    return () => seen.disconnect();`,
    `  }, [inView]);`,
    `  if (!inView) return ${edits.file.hasMarkup ? '<div ref={place} aria-busy="true" />' : `${use('createElement')}('div', { ref: place, 'aria-busy': true })`};`,
    `  return ${drawn(edits, part)};`,
    `}`,
  ];
}

function givenType({ file }: FileEdits, { wrapper, inner }: StandIn): string {
  return file.isTyped ? `: import('${wrapper.from}').ComponentProps<typeof ${inner}>` : '';
}

function drawn(edits: FileEdits, { inner, wrapper, fallback }: StandIn): string {
  const boundary = edits.use(wrapper.boundary!, wrapper.from) ?? wrapper.boundary!;
  if (edits.file.hasMarkup)
    return `<${boundary} fallback={${fallbackWords(fallback)}}><${inner} {...given} /></${boundary}>`;
  const make = edits.use('createElement', wrapper.from) ?? 'createElement';
  const instead = keepsRoom(fallback) ? `${make}('div', { 'aria-busy': true })` : 'null';
  return `${make}(${boundary}, { fallback: ${instead} }, ${make}(${inner}, given))`;
}

/** What keeps room is an empty element to be given its size; the part's own look is nobody's to invent. */
export function fallbackWords(fallback: Fallback | undefined): string {
  return keepsRoom(fallback) ? '<div aria-busy="true" />' : 'null';
}

function keepsRoom(fallback: Fallback | undefined): boolean {
  return fallback?.show === 'reserved space' || fallback?.show === 'stand-in';
}
