import { MEASURES } from '../../../core/vocabulary/measures.ts';
import type { LandingView } from '../../../worker/views.ts';
import { time } from '../../parts/format.ts';
import { placeFlags } from './rows.ts';

const LEVEL = 22;

/** Flags of the milestones over the waterfall, with their lines down through it; they stay in sight. */
export function MilestoneFlags({
  view,
  x,
  width,
  bodyHeight,
}: {
  view: LandingView;
  x: (ms: number) => number;
  width: number;
  bodyHeight: number;
}) {
  const { firstContent, firstScreenComplete, interactive } = view.milestones;
  const wanted = [
    { name: MEASURES['first content'].name, at: firstContent },
    { name: MEASURES['first screen'].name, at: firstScreenComplete },
    { name: MEASURES.interactive.name, at: interactive },
  ].filter((f) => Number.isFinite(f.at));
  const flags = placeFlags(
    wanted.map((f) => ({ ...f, width: (f.name.length + time(f.at).length + 1) * 5.8 + 10 })),
    x,
    width - 4,
  );
  const levels = Math.max(1, ...flags.map((f) => f.level + 1));
  const height = levels * LEVEL + 4;
  const bound = x(view.lowerBound);
  return (
    <div className="pointer-events-none sticky top-0 z-10">
      <svg width={width} height={height + bodyHeight} className="absolute top-0 left-0" aria-hidden="true">
        <title>milestones</title>
        <line x1={bound} x2={bound} y1={height} y2={height + bodyHeight} stroke="var(--hinted)" strokeDasharray="4 3" />
        <text x={bound + 4} y={height + 8} fontSize={11} fill="var(--hinted-text)">
          lower bound {time(view.lowerBound)}
        </text>
        {flags.map((f) => (
          <line
            key={f.name}
            x1={x(f.at)}
            x2={x(f.at)}
            y1={(f.level + 1) * LEVEL - 2}
            y2={height + bodyHeight}
            stroke="var(--ink)"
            strokeWidth={f.name === 'interactive' ? 1.8 : 0.9}
          />
        ))}
      </svg>
      <div className="relative bg-sheet" style={{ height }}>
        {flags.map((f) => (
          <span
            key={f.name}
            className={`absolute rounded border px-1.5 text-center text-[11px] leading-[17px] font-medium whitespace-nowrap ${
              f.name === 'interactive' ? 'border-ink bg-ink text-on-ink' : 'border-ink bg-sheet'
            }`}
            style={{ left: f.x, top: f.level * LEVEL + 2, width: f.width }}
          >
            {f.name} {time(f.at)}
          </span>
        ))}
      </div>
    </div>
  );
}
