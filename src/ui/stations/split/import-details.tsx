import type { Outline } from '../../../core/outline/outline.ts';
import { ImportSheet } from './import-sheet.tsx';
import { ManySheet } from './many-sheet.tsx';
import { SplitPointSheet } from './split-point-sheet.tsx';
import type { ImportChoice } from './use-import-choice.ts';

/** All about what is chosen: one import, one split point, several imports together, or what to do first. */
export function ImportDetails({
  choice,
  outline,
  within,
  onDetachMany,
  onEnter,
}: {
  choice: ImportChoice;
  outline: Outline | null;
  within: string | null;
  onDetachMany: () => void;
  onEnter: (splitPoint: string) => void;
}) {
  const { many, chosen } = choice;
  if (many && many.rows.length > 0)
    return (
      <ManySheet
        title={many.title}
        note={
          many.marked
            ? 'Ctrl and a click, or Space, adds more'
            : `${many.rows.length} ${many.rows.length === 1 ? 'import leads' : 'imports lead'} here`
        }
        own={many.own}
        decisions={many.decisions}
        onDetach={onDetachMany}
        onClear={choice.clear}
      />
    );
  if (chosen?.kind === 'import') return <ImportSheet key={chosen.id} row={chosen.row} within={within} />;
  if (chosen?.kind === 'split')
    return (
      <SplitPointSheet
        key={chosen.id}
        row={chosen.row}
        chain={outline?.splits.filter((r) => r.inChain && r.imports.length > 0) ?? []}
        onEnter={() => onEnter(chosen.row.target)}
      />
    );
  return <ChooseFirst choice={choice} />;
}

function ChooseFirst({ choice: { lines, pick } }: { choice: ImportChoice }) {
  const first = lines.find((l) => l.kind === 'import' && l.row.part?.place !== 'first screen');
  return (
    <div className="text-soft">
      <h2 className="mb-1 font-semibold text-ink">Choose a line</h2>
      <p>
        Start with the heaviest import that is not needed on the first screen. Here you will see what would leave the
        start if it were detached, before anything is decided.
      </p>
      <button type="button" className="mt-3 text-ink underline" onClick={() => first?.kind === 'import' && pick(first)}>
        Choose it for me
      </button>
    </div>
  );
}
