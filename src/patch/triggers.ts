import type { Trigger } from '../core/vocabulary/triggers.ts';
import type { FileEdits } from './file-edits.ts';

/** Code that begins an import at a trigger which depends on time or the screen alone; null for other triggers. */
function beginning(trigger: Trigger, begin: string, indent: string, newline: string): string | null {
  switch (trigger.on) {
    case 'at once':
      return `${indent}${begin}();`;
    case 'after first paint':
      return `${indent}requestAnimationFrame(() => setTimeout(${begin}));`;
    case 'idle':
      return [
        `${indent}if ('requestIdleCallback' in window) requestIdleCallback(${begin});`,
        `${indent}else setTimeout(${begin}, 200);`,
      ].join(newline);
    case 'after':
      return `${indent}setTimeout(${begin}, ${trigger.ms});`;
    case 'media':
      return `${indent}if (matchMedia('${mediaWords(trigger)}').matches) ${begin}();`;
    case 'visible':
    case 'approach':
    case 'action':
    case 'answer':
    case 'event':
      return null;
  }
}

function mediaWords({ minWidth, maxWidth }: { minWidth?: number; maxWidth?: number }): string {
  return [
    ...(minWidth === undefined ? [] : [`(min-width: ${minWidth}px)`]),
    ...(maxWidth === undefined ? [] : [`(max-width: ${maxWidth}px)`]),
  ].join(' and ');
}

/** Whether the patch can write a trigger by itself. */
export function isWritten(trigger: Trigger): boolean {
  return beginning(trigger, 'begin', '', '\n') !== null;
}

/**
 * Begins a deferred import at a trigger, in the module that makes it. Whoever draws the part later joins the import
 * that was begun; one that fails is tried again then.
 */
export function writeTrigger(edits: FileEdits, specifier: string, trigger: Trigger): void {
  const { file } = edits;
  const { newline } = file;
  const lines = [
    `if (typeof document !== 'undefined') {`,
    `  const begin = () => void import(${file.quoted(specifier)}).catch(() => {});`,
    beginning(trigger, 'begin', '  ', newline),
    '}',
  ];
  edits.top(lines.join(newline));
}

/** Plain code that a person puts where it belongs, for any component system. */
export function recipe(specifier: string, names: readonly string[], trigger: Trigger): string {
  const load = `const load = () => import('${specifier}');`;
  const given =
    names.length === 0 || names.includes('*')
      ? 'module'
      : `{ ${names.map((n) => (n === 'default' ? 'default: part' : n)).join(', ')} }`;
  const use = `const ${given} = await load();`;
  const begun = beginning(trigger, 'load', '', '\n');
  if (begun !== null) return [load, begun, `// where it is used, in a function that may wait:`, use].join('\n');
  switch (trigger.on) {
    case 'visible':
      return [
        load,
        `new IntersectionObserver((entries, seen) => {`,
        `  if (!entries.some((entry) => entry.isIntersecting)) return;`,
        `  seen.disconnect();`,
        `  load();`,
        `}).observe(place); // the element that keeps its room`,
        `// where it is drawn:`,
        use,
      ].join('\n');
    case 'approach':
      return [
        load,
        `for (const kind of ['pointerover', 'focusin']) opener.addEventListener(kind, load, { once: true }); // what opens it`,
        `// where it is opened:`,
        use,
      ].join('\n');
    case 'answer':
      return [load, `// once ${trigger.of} has answered that it is needed:`, use].join('\n');
    case 'event':
      return [
        load,
        `addEventListener(${JSON.stringify(trigger.name)}, load, { once: true });`,
        `// where it is used:`,
        use,
      ].join('\n');
    case 'at once':
    case 'after first paint':
    case 'idle':
    case 'after':
    case 'media':
    case 'action':
      return [load, `// in the handler of the action, or wherever a function may wait:`, use].join('\n');
  }
}
