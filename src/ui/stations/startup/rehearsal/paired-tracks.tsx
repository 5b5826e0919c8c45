import type { RehearsedPart, ThreadKind } from '../../../../core/rehearsals/types.ts';
import type { RehearsedView } from '../../../../worker/services/rehearsed.ts';
import { time } from '../../../parts/format.ts';
import { GUTTER } from './paired-row.tsx';

type Scale = (ms: number) => number;

function Label({ y, children }: { y: number; children: string }) {
  return (
    <text x={GUTTER - 8} y={y} fontSize={11} textAnchor="end" fill="var(--soft)">
      {children}
    </text>
  );
}

const LONGEST_NAME = 25;

/** When each part shows: predicted (filled) and rehearsed (open), with a line between them. */
export function PairedParts({
  found,
  parts,
  top,
  lane,
  x,
}: {
  found: RehearsedView;
  parts: readonly RehearsedPart[];
  top: number;
  lane: number;
  x: Scale;
}) {
  const { view } = found;
  return (
    <g>
      <text x={10} y={top - 6} fontSize={11} fontWeight={600} fill="var(--soft)">
        when parts show
      </text>
      {parts.map(({ part, shown }, i) => {
        const at = view.parts.findIndex((p) => p.id === part);
        const predicted = view.timeline.reveals.find((r) => r.part === at && r.state === 'shown')?.at ?? null;
        const name = view.parts[at]?.name ?? part;
        const y = top + i * lane + 8;
        const words = `${name}: predicted ${predicted === null ? 'never' : time(predicted)}, rehearsed ${time(shown!)}`;
        return (
          <g key={part}>
            <title>{words}</title>
            <Label y={y + 4}>{name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME - 1)}…` : name}</Label>
            {predicted === null ? null : (
              <>
                <line x1={x(predicted)} x2={x(shown!)} y1={y} y2={y} stroke="var(--faint)" />
                <rect x={x(predicted) - 4} y={y - 4} width={8} height={8} fill="var(--needed)" />
              </>
            )}
            <circle cx={x(shown!)} cy={y} r={4.5} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.4} />
          </g>
        );
      })}
    </g>
  );
}

/** How dark each kind of the thread’s time is drawn, and what it is called. */
const KINDS: Record<ThreadKind, { opacity: number; words: string }> = {
  run: { opacity: 0.95, words: 'files run' },
  compile: { opacity: 0.7, words: 'compiled' },
  draw: { opacity: 0.5, words: 'drawn and called' },
  layout: { opacity: 0.32, words: 'laid out and painted' },
  other: { opacity: 0.18, words: 'other' },
};
const ORDER = Object.keys(KINDS) as ThreadKind[];
const HIGH = 16;

/** The page’s thread twice: tasks as predicted, and as they were, each divided by what its time went to. */
export function PairedThreads({
  found,
  top,
  x,
  until,
}: {
  found: RehearsedView;
  top: number;
  x: Scale;
  until: number;
}) {
  const [above, below] = [top, top + 30];
  return (
    <g>
      <text x={10} y={top - 8} fontSize={11} fontWeight={600} fill="var(--soft)">
        the page’s thread
      </text>
      <Label y={above + 12}>predicted</Label>
      <Label y={below + 12}>rehearsed</Label>
      {[above, below].map((y) => (
        <line key={y} x1={x(0)} x2={x(until)} y1={y + HIGH} y2={y + HIGH} stroke="var(--line)" />
      ))}
      {found.view.timeline.tasks.map((t) => (
        <rect
          key={`${t.start}${t.name}`}
          x={x(t.start)}
          y={above}
          width={Math.max(1, x(t.end) - x(t.start))}
          height={HIGH}
          fill="var(--needed)"
          opacity={0.8}
        >
          <title>{`${t.name}: ${t.kind}, ${time(t.end - t.start)} from ${time(t.start)}`}</title>
        </rect>
      ))}
      {found.run.tasks.map((task) => (
        <Task key={task.start} task={task} y={below} x={x} />
      ))}
      <Kinds y={below + HIGH + 20} />
    </g>
  );
}

function Task({ task, y, x }: { task: RehearsedView['run']['tasks'][number]; y: number; x: Scale }) {
  const { start, end, of } = task;
  const words = ORDER.flatMap((k) => ((of[k] ?? 0) >= 0.5 ? [`${time(of[k]!)} ${KINDS[k].words}`] : [])).join(', ');
  let from = start;
  return (
    <g>
      <title>{`${time(end - start)} from ${time(start)}: ${words}`}</title>
      {ORDER.map((k) => {
        const ms = of[k] ?? 0;
        const left = from;
        from += ms;
        return ms > 0 ? (
          <rect
            key={k}
            x={x(left)}
            y={y}
            width={Math.max(0.5, x(left + ms) - x(left))}
            height={HIGH}
            fill="var(--ink)"
            opacity={KINDS[k].opacity}
          />
        ) : null;
      })}
    </g>
  );
}

function Kinds({ y }: { y: number }) {
  return (
    <g fontSize={11} fill="var(--soft)">
      {ORDER.map((k, i) => (
        <g key={k} transform={`translate(${GUTTER + i * 124}, ${y})`}>
          <rect y={-9} width={10} height={10} fill="var(--ink)" opacity={KINDS[k].opacity} />
          <text x={14}>{KINDS[k].words}</text>
        </g>
      ))}
    </g>
  );
}
