import type { Snapshot } from '../core/snapshot/types.ts';
import type { SheetEdits } from './sheet-edits.ts';
import { notOpened, type PatchStep } from './types.ts';

type TrimStep = Omit<PatchStep, 'decision' | 'words'>;

/** Rules of a sheet that are told one by one. */
const MOST_RULES = 200;

/** The rules of a sheet that nothing can use are left out: one step for all of them, as there may be a thousand. */
export function trimSteps(
  { unusedRules }: Snapshot,
  sheetOr: (path: string) => SheetEdits | string,
  module: string,
): TrimStep[] {
  const rules = unusedRules.filter((r) => r.module === module);
  if (rules.length === 0) return [];
  const step = { path: module, line: rules[0].line };
  const some = (n: number) => `${n} ${n === 1 ? 'rule' : 'rules'} whose names nothing mentions`;
  const edits = sheetOr(module);
  if (typeof edits !== 'string') {
    const missing = edits.leaveOut(rules);
    if (missing.length === 0) return [{ ...step, state: 'edited', what: `${some(rules.length)} left out`, recipe: '' }];
    const { line, selector } = missing[0];
    const what = `${module} isn’t the file that was read: ${selector} doesn’t stand on line ${line}`;
    return [{ ...step, state: 'refused', what, recipe: '' }];
  }
  const { state, what } = notOpened(edits);
  const first = rules.slice(0, MOST_RULES).map((r) => `/* line ${r.line} */ ${r.selector}`);
  const more = rules.length > MOST_RULES ? [`/* and ${rules.length - MOST_RULES} more */`] : [];
  return [
    {
      ...step,
      state,
      what: state === 'by hand' ? `${some(rules.length)} to be left out: ${what}` : what,
      recipe: [...first, ...more].join('\n'),
    },
  ];
}
