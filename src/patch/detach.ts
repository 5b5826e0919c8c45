import type { Import } from '../core/snapshot/module-types.ts';
import type { SyntaxNode } from '../reader/syntax.ts';
import type { Found, PatchContext } from './context.ts';
import { deferBindings } from './defer-bindings.ts';
import type { FileEdits } from './file-edits.ts';
import { passedOn } from './passed-on.ts';
import { bindingsOf, specifierOf } from './script-file.ts';

/** How a static import becomes a deferred one: the change of its file, or why that can't be done safely by itself. */
export function detach(context: PatchContext, edits: FileEdits, item: Import): Found {
  const { file } = edits;
  const statement = file.body.find((s) => s.start === item.start && s.end === item.end);
  if (!statement) return { reason: 'it is made by a call or by the compiler, not by an import statement' };
  if (statement.type !== 'ImportDeclaration') return passedOn(context, edits, item, statement);
  const bindings = bindingsOf(statement);
  if (bindings.every((b) => b.isType))
    return { reason: 'it is imported for what it does by itself, in this order: only you know when it may run' };
  const deferred = deferBindings(context, edits, item, bindings);
  if ('reason' in deferred) return deferred;
  return {
    change: () => {
      if (deferred.types.length > 0) replaceByTypes(edits, statement, deferred.types);
      else edits.drop(statement);
      deferred.change();
    },
    done: deferred.done,
  };
}

/** Types vanish when the code is compiled, so their import may stay. */
function replaceByTypes({ file, out }: FileEdits, statement: SyntaxNode, types: readonly string[]): void {
  const from = file.quoted(specifierOf(statement)!);
  const whole = types.find((t) => t.startsWith('* as '));
  const text = whole ? `import type ${whole} from ${from};` : `import type { ${types.join(', ')} } from ${from};`;
  out.overwrite(statement.start, statement.end, text);
}
