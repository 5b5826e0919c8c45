import type { ScaleLinear } from 'd3-scale';
import { MEASURES } from '../../../core/vocabulary/measures.ts';
import type { LandingView } from '../../../worker/views.ts';
import { tickWords } from '../../parts/axis.ts';
import { time } from '../../parts/format.ts';
import { type Flag, joinFlags, placeFlags } from './rows.ts';

const LEVEL = 22;
/** Height of the axis under the flags. */
const AXIS = 17;
const INTERACTIVE = MEASURES.interactive.name;

/** The head of the waterfall, which stays in sight: flags of the milestones with their lines down through it, and the axis. */
export function MilestoneFlags({
  view,
  before,
  x,
  width,
  gutter,
  bodyHeight,
}: {
  view: LandingView;
  /** What it is compared with, by the word for that: when it was interactive; null where nothing differs. */
  before: { word: string; at: number } | null;
  x: ScaleLinear<number, number>;
  width: number;
  gutter: number;
  bodyHeight: number;
}) {
  const { firstContent, largestContent, firstScreenComplete, interactive } = view.milestones;
  const wanted: Pick<Flag, 'name' | 'at' | 'before' | 'strong'>[] = [
    { name: MEASURES['first content'].name, at: firstContent },
    { name: MEASURES['largest content'].name, at: largestContent },
    { name: MEASURES['first screen'].name, at: firstScreenComplete },
    { name: INTERACTIVE, at: interactive, strong: true as const },
    ...(before ? [{ name: `${before.word}: ${INTERACTIVE}`, at: before.at, before: true as const }] : []),
  ].filter((f) => Number.isFinite(f.at));
  const flags = placeFlags(
    joinFlags(wanted).map((f) => ({ ...f, width: (f.name.length + time(f.at).length + 1) * 5.8 + 10 })),
    x,
    width - 4,
  );
  const levels = Math.max(1, ...flags.map((f) => f.level + 1));
  const height = levels * LEVEL + 4 + AXIS;
  const bound = x(view.lowerBound);
  const own = flags.filter((f) => !f.before);
  return (
    <div className="pointer-events-none sticky top-0 z-10">
      <svg width={width} height={height + bodyHeight} className="absolute top-0 left-0" aria-hidden="true">
        <title>milestones</title>
        <line x1={bound} x2={bound} y1={height} y2={height + bodyHeight} stroke="var(--hinted)" strokeDasharray="4 3" />
        <text x={bound + 4} y={height + 8} fontSize={11} fill="var(--hinted-text)">
          lower bound {time(view.lowerBound)}
        </text>
        {own.map((f) => (
          <line
            key={f.name}
            x1={x(f.at)}
            x2={x(f.at)}
            y1={(f.level + 1) * LEVEL - 2}
            y2={height + bodyHeight}
            stroke="var(--ink)"
            strokeWidth={f.strong ? 1.8 : 0.9}
          />
        ))}
      </svg>
      <div className="relative border-b border-line bg-sheet" style={{ height }}>
        <span className="absolute bottom-0 left-2.5 text-[11px] text-soft">predicted, from the navigation on</span>
        {flags.map((f) => (
          <span
            key={f.name}
            className={`absolute rounded border px-1.5 text-center text-[11px] leading-[17px] font-medium whitespace-nowrap ${lookOf(f)}`}
            style={{ left: f.x, top: f.level * LEVEL + 2, width: f.width }}
          >
            {f.name} {time(f.at)}
          </span>
        ))}
        <svg width={width} height={AXIS} className="absolute bottom-0 left-0" aria-hidden="true">
          <title>time</title>
          {x.ticks(8).map((t) => (
            <g key={t} transform={`translate(${x(t)} 0)`}>
              <line y1={13} y2={AXIS} stroke="var(--faint)" />
              <text y={11} fontSize={11} textAnchor={x(t) < gutter + 8 ? 'start' : 'middle'} fill="var(--soft)">
                {tickWords(t)}
              </text>
            </g>
          ))}
        </svg>
      </div>
    </div>
  );
}

function lookOf(flag: Flag): string {
  if (flag.before) return 'border-dashed border-faint bg-sheet text-soft';
  return flag.strong ? 'border-ink bg-ink text-on-ink' : 'border-ink bg-sheet';
}
