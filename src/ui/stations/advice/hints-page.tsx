'use client';

import { useState } from 'react';
import type { HintRow } from '../../../core/choose/hint-table.ts';
import { columnStyle, PlainCell, useColumnWidths } from '../../parts/columns.tsx';
import { percent, size, time } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { Aside, StationGrid } from '../../parts/station-grid.tsx';
import { useHintRows } from '../../state/hint-rows.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { type HintLine, hintLines, NO_GAIN, wayWords } from './hint-lines.ts';
import { HintSheet } from './hint-sheet.tsx';

const BAR = 48;
const COLUMNS =
  'grid-cols-[22px_var(--column-for)_var(--column-way)_var(--column-saves)_var(--column-wastes)_minmax(0,1fr)]';
const USUAL = { for: 'minmax(80px,130px)', way: '164px', saves: '122px', wastes: '54px' };
const COLUMN_NAMES = ['for', 'way', 'saves', 'wastes'] as const;

/** Every hint that could make sense, by route, with what it saves and wastes by itself; switched on and off. */
export function HintsPage() {
  const { rows, done, error } = useHintRows();
  const [all, setAll] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  /** Which way is looked at where none is on, by line. */
  const [ways, setWays] = useState<Record<string, string>>({});
  const widths = useColumnWidths('hints', COLUMN_NAMES);
  if (error) return <Message title="Hints can’t be measured">{error}</Message>;
  if (!rows)
    return <Message title="Measuring every hint that could make sense">{percent(done)} of them tried.</Message>;
  const routes = hintLines(rows, all);
  const shownOf = (line: HintLine): HintRow =>
    line.on[0] ?? line.ways.find((w) => w.id === ways[line.key]) ?? line.ways[0];
  const lines = routes.flatMap((r) => r.lines);
  const open = lines.find((l) => l.key === chosen) ?? lines[0];
  const most = Math.max(1, ...rows.map((r) => Math.abs(r.gain)));
  return (
    <StationGrid id="hints" aside={320}>
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-4 pb-6" style={columnStyle(widths, USUAL)}>
        <div className="flex items-start justify-between gap-4">
          <div>
            <h1 className="text-[15px] font-semibold">Each hint by itself</h1>
            <p className="mb-3 text-soft" aria-live="polite">
              {done < 1
                ? `measuring again for the plan as it is now … ${percent(done)}`
                : `${rows.length} ways of hinting, each simulated alone beside the plan as it is`}
            </p>
          </div>
          <label className="flex items-center gap-1.5 whitespace-nowrap">
            <input type="checkbox" checked={all} onChange={(e) => setAll(e.target.checked)} />
            also those without gain
          </label>
        </div>
        {lines.length === 0 ? (
          <p className="text-soft">No hint saves anything here, as the plan is. Another link at the top may differ.</p>
        ) : (
          <>
            <div className={`grid ${COLUMNS} gap-3 text-[11px] text-soft`}>
              <span>on</span>
              <PlainCell words="for" column={widths.for} at="right" />
              <PlainCell words="way" column={widths.way} at="right" />
              <PlainCell words="saves a visit" column={widths.saves} at="right" />
              <PlainCell words="wastes" column={widths.wastes} at="right" className="text-right" />
              <span>because</span>
            </div>
            {routes.map(({ route, lines: own }) => (
              <section key={route} aria-label={route === '' ? 'several routes' : route}>
                <h2 className="mt-3 mb-1 font-semibold">{route === '' ? 'several routes' : route}</h2>
                <ul>
                  {own.map((line) => (
                    <Line
                      key={line.key}
                      line={line}
                      shown={shownOf(line)}
                      most={most}
                      chosen={line === open}
                      onChoose={() => setChosen(line.key)}
                      onWay={(id) => setWays({ ...ways, [line.key]: id })}
                    />
                  ))}
                </ul>
              </section>
            ))}
          </>
        )}
      </div>
      <Aside label="Details">{open ? <HintSheet key={shownOf(open).id} row={shownOf(open)} /> : null}</Aside>
    </StationGrid>
  );
}

function Line({
  line,
  shown,
  most,
  chosen,
  onChoose,
  onWay,
}: {
  line: HintLine;
  shown: HintRow;
  most: number;
  chosen: boolean;
  onChoose: () => void;
  onWay: (id: string) => void;
}) {
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  const toggle = () => {
    onChoose();
    if (line.on.length > 0)
      withdraw(
        line.on.map((r) => r.id),
        `remove: ${line.on[0].words}`,
      );
    else decide([{ kind: 'hint', hint: shown.hint }], shown.words);
  };
  const change = (id: string) => {
    onChoose();
    onWay(id);
    const next = line.ways.find((w) => w.id === id);
    if (line.on.length === 0 || !next) return;
    withdraw(
      line.on.map((r) => r.id),
      `another way: ${next.words}`,
    );
    decide([{ kind: 'hint', hint: next.hint }], next.words);
  };
  return (
    <li
      className={`grid ${COLUMNS} items-center gap-3 border-t border-line py-0.5 ${chosen ? 'bg-mark' : 'hover:bg-band'}`}
    >
      <input type="checkbox" aria-label={shown.words} className="ml-1" checked={line.on.length > 0} onChange={toggle} />
      <button type="button" className="min-w-0 truncate text-left" title={line.name} onClick={onChoose}>
        {line.name}
      </button>
      <select
        aria-label={`Way of hinting at ${line.name}`}
        value={shown.id}
        onChange={(event) => change(event.target.value)}
        className="h-[26px] min-w-0 rounded border border-transparent bg-transparent hover:border-line"
      >
        {line.ways.map((w) => (
          <option key={w.id} value={w.id}>
            {wayWords(w.hint)}
          </option>
        ))}
      </select>
      <Gain gain={shown.gain} most={most} />
      <span className="text-right">{Math.abs(shown.waste) < 0.5 ? 'nothing' : size(shown.waste)}</span>
      <span className={`truncate ${shown.trouble ? 'text-worse' : 'text-soft'}`} title={shown.trouble ?? line.why}>
        {shown.trouble ? `not applied: ${shown.trouble}` : line.why}
      </span>
    </li>
  );
}

function Gain({ gain, most }: { gain: number; most: number }) {
  if (Math.abs(gain) < NO_GAIN) return <span className="text-soft">no difference</span>;
  const better = gain > 0;
  return (
    <span className="flex items-center gap-2 whitespace-nowrap">
      <span
        aria-hidden="true"
        className={`h-2 shrink-0 ${better ? 'bg-[var(--better)]' : 'bg-[var(--worse)]'}`}
        style={{ width: Math.max(1, (Math.abs(gain) / most) * BAR) }}
      />
      <span className={better ? '' : 'text-worse'}>
        {better ? '▾' : '▴'} {time(Math.abs(gain))}
        {better ? '' : ' more'}
      </span>
    </span>
  );
}
