import { shortName } from '../text/short-name.ts';
import type { ImportChoice } from './types.ts';

/** Which imports are meant, as the subject of a decision. */
export function importChoiceSubject(choice: ImportChoice): string {
  if ('import' in choice) return `import ${choice.import}`;
  return 'module' in choice ? `imports of ${choice.module}` : `imports of package ${choice.package}`;
}

/** Which imports are meant, in words. */
export function importChoiceWords(choice: ImportChoice): string {
  if ('import' in choice) return importWords(choice.import);
  return 'module' in choice ? `every import of ${shortName(choice.module)}` : `the package ${choice.package}`;
}

function importWords(key: string): string {
  const [from, specifier] = key.split('::');
  return `${shortName(specifier ?? '')} from ${shortName(from)}`;
}
