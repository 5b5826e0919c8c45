import { parseEnv } from 'node:util';
import { textIfThere } from '../folder-files.ts';

/** Files in which an app keeps what its builds put in place of `process.env.X` and `import.meta.env.X`, the later ones over the earlier (convention that builds share). */
export const ENVIRONMENT_FILES = ['.env', '.env.local', '.env.production', '.env.production.local'];

/** Names whose values builds let out into the browser, by the convention of each. Whatever else such a file holds is a secret, and is never read out of it. */
const LET_OUT = /^(VITE|REACT_APP|VUE_APP|NEXT_PUBLIC|NUXT_PUBLIC|PUBLIC|GATSBY|EXPO_PUBLIC)_\w+$/;

/** What every build says of itself, production builds for the browser among them. */
const OF_BUILDS = {
  'process.env': { NODE_ENV: 'production', BASE_URL: '/', PUBLIC_URL: '' },
  'import.meta.env': { MODE: 'production', BASE_URL: '/', DEV: false, PROD: true, SSR: false },
} as const;

/** What is asked of other kinds of builds. */
const OTHERS = { 'import.meta.client': 'true', 'import.meta.server': 'false', 'import.meta.dev': 'false' };

/** What asks in which kind of build it runs, by the conventions that several builds share. */
const ASKS = /process\.env\b|import\.meta\.(env|client|server|dev)\b/;

/** Whether a script asks in which kind of build it runs, or what its build was told. */
export function asksEnvironment(text: string): boolean {
  return ASKS.test(text);
}

/** What the builds of an app are told by its files, as far as they let it out. */
export function toldToBuilds(root: string): Record<string, string> {
  const told: Record<string, string> = {};
  for (const name of ENVIRONMENT_FILES) {
    const text = textIfThere(root, name);
    for (const [key, value] of Object.entries(text === null ? {} : parseEnv(text)))
      if (LET_OUT.test(key) && value !== undefined) told[key] = value;
  }
  return told;
}

/**
 * What a script asks of its environment, each with what a production build puts there, as code. What the app’s own code asks beyond that isn’t set by its files, but may be by whoever
 * builds it: it is undefined where the code runs, and no branch goes for it. What packages ask of `process.env` is set by nobody.
 */
export function environmentOf(
  isOwn: boolean,
  text: string,
  told: Readonly<Record<string, string>>,
): Record<string, string> {
  const found: Record<string, string> = { ...OTHERS };
  for (const [object, ofBuilds] of Object.entries(OF_BUILDS)) {
    const values: Record<string, unknown> = isOwn ? { ...told, ...ofBuilds } : ofBuilds;
    const written = new RegExp(`${object.replaceAll('.', '\\.')}\\.(\\w+)`, 'g');
    for (const [whole, name] of text.matchAll(written)) {
      const isKnown = Object.hasOwn(values, name) && (isOwn || object !== 'process.env' || name === 'NODE_ENV');
      found[whole] = isKnown ? JSON.stringify(values[name]) : isOwn && !(name in {}) ? `({}).${name}` : 'undefined';
    }
    if (isOwn) found[object] = `(${JSON.stringify(values)})`;
  }
  return found;
}
