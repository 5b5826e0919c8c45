import { counted } from '../../../core/text/counted.ts';
import { copying, type RowMenu } from '../../parts/menu/row-menu.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { groupDecisions } from './lines.ts';
import type { ChoosableLine } from './split-list.tsx';
import { hasPreload, toggleImport, togglePreload } from './toggles.ts';
import type { ImportChoice } from './use-import-choice.ts';

/** What can be done with a line of the list: what its keys do, and what can be copied of it. `onEnter`: looks inside a split point. */
export function lineMenu(
  line: ChoosableLine,
  { choice, route, onEnter }: { choice: ImportChoice; route: string; onEnter: (target: string) => void },
): Pick<RowMenu, 'of' | 'groups'> {
  switch (line.kind) {
    case 'import':
      return { of: line.row.name, groups: importGroups(line, choice) };
    case 'split':
      return {
        of: line.row.name,
        groups: [
          [
            { words: 'Join it', note: 'd', run: () => toggleImport(line) },
            {
              words: hasPreload(line.row) ? 'No preload on this route' : 'Preload it on this route',
              note: 'p',
              run: () => togglePreload(line.row, route),
            },
            { words: 'Its own imports', note: 'Enter', run: () => onEnter(line.row.target) },
          ],
          [copying('the path', line.row.target)],
        ],
      };
    case 'group':
      return {
        of: line.title,
        groups: [
          [
            {
              words: `Detach what leads into ${line.title}`,
              note: 'd',
              run: () => useWorkbench.getState().decide(groupDecisions(line), `detach what leads into ${line.title}`),
            },
            {
              words: line.open ? 'Fold' : 'Unfold',
              note: line.open ? '←' : '→',
              run: () => choice.fold(line, !line.open),
            },
          ],
          [copying(line.package === null ? 'the folder' : 'the name', line.package ?? line.title)],
        ],
      };
  }
}

function importGroups(line: Extract<ChoosableLine, { kind: 'import' }>, choice: ImportChoice): RowMenu['groups'] {
  const { row } = line;
  const { marks, many } = choice;
  const isMarked = marks.has(row.key);
  const together =
    many?.marked && isMarked && marks.size > 1
      ? [
          {
            words: `Detach the ${counted(marks.size, 'import')} chosen`,
            note: 'd',
            run: () => {
              useWorkbench.getState().decide(many.decisions, many.words);
              choice.clear();
            },
          },
        ]
      : [];
  return [
    [
      ...together,
      {
        words: row.changed ? 'Detach it again' : 'Detach it',
        ...(together.length > 0 ? {} : { note: 'd' }),
        run: () => toggleImport(line),
      },
      {
        words: isMarked ? 'Leave it out of those chosen' : 'Choose it together with others',
        note: 'Space',
        run: () => choice.mark([line.row.key]),
      },
    ],
    [copying('the path', row.to), copying('where it is imported', `${row.from}:${row.line}`)],
  ];
}
