import type { Import } from '../core/snapshot/module-types.ts';
import { shortName } from '../core/text/short-name.ts';
import { asComponent } from './as-component.ts';
import { asTableEntry } from './as-table-entry.ts';
import type { Change, PatchContext } from './context.ts';
import type { FileEdits } from './file-edits.ts';
import { handedOn } from './handed-on.ts';
import { type Binding, withoutTypes } from './script-file.ts';
import { WaitingUses } from './waiting-uses.ts';

/** The changes of a file that uses names of a module which is to be deferred, without those of the import itself. */
export interface DeferredBindings {
  change: Change;
  done: string;
  /** Names, as they are written in an import, of which only the type is still needed. */
  types: string[];
}

/** How names that a file imports are got from a deferred import instead, or why that can't be done. */
export function deferBindings(
  context: PatchContext,
  edits: FileEdits,
  item: Import,
  bindings: readonly Binding[],
): DeferredBindings | { reason: string } {
  const { file } = edits;
  const changes: Change[] = [];
  const words: string[] = [];
  const types: string[] = bindings.filter((b) => b.isType).map(typeWords);
  const waiting = new WaitingUses(edits, item.specifier);
  for (const binding of bindings.filter((b) => !b.isType)) {
    const all = file.references(binding.local);
    if (!all) return { reason: `the name ${binding.local} means something else in a part of the file` };
    const references = withoutTypes(all);
    const inTypes = all.filter((r) => !references.includes(r));
    if (references.length === 0) {
      if (inTypes.length > 0) types.push(typeWords(binding));
      continue;
    }
    const found =
      asTableEntry(context, edits, item, binding, references) ??
      asComponent(context, edits, item, binding, references, inTypes);
    if (found) {
      if ('reason' in found) return found;
      changes.push(found.change);
      words.push(found.done);
      continue;
    }
    if (inTypes.length > 0) types.push(typeWords(binding));
    for (const reference of references) {
      const handed = handedOn(context, edits, item, binding, reference);
      if (handed && 'reason' in handed) return handed;
      if (handed) {
        changes.push(handed.change);
        words.push(handed.done);
        continue;
      }
      const trouble = waiting.add(binding, reference);
      if (trouble !== null) return { reason: trouble };
    }
  }
  const waits = waiting.found();
  if ('reason' in waits) return waits;
  return {
    change: () => {
      for (const change of [...changes, ...waits.changes]) change();
    },
    done: [...new Set([...words, ...waits.words])].join('; ') || `nothing of ${shortName(item.specifier)} is used`,
    types,
  };
}

function typeWords({ imported, local }: Binding): string {
  return imported === local ? local : `${imported} as ${local}`;
}
