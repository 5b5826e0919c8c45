'use client';

import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  usePlotArea,
  XAxis,
  YAxis,
} from 'recharts';
import { type Span, spanOf } from './span.ts';
import type { ChartAxis, ChartProps } from './types.ts';

const TICK = { fontSize: 11, fill: 'var(--soft)' };
const LINE = 'var(--line)';
const TOLD = { background: 'var(--sheet)', border: `1px solid ${LINE}`, fontSize: 12 };
const MARGIN = { top: 16, right: 16, left: 4, bottom: 4 };
/** Room for what is said of an axis that is cut. */
const SAID = 14;

/** Draws a chart of lines; see ChartProps. */
export function Drawing({ height, rows, lines, across, left, right, mark, picked, zero, tell, onPick }: ChartProps) {
  const axisOf = (name: unknown): ChartAxis => {
    const line = lines.find((l) => l.name === name);
    return line?.axis === 'right' && right ? right : left;
  };
  const span = (side: 'left' | 'right', { tick, write }: ChartAxis) =>
    spanOf(
      lines.filter((l) => (l.axis ?? 'left') === side).flatMap((l) => rows.map((row) => Number(row[l.of]))),
      tick ?? write,
    );
  const spans = { left: span('left', left), right: span('right', right ?? left) };
  const isCut = spans.left.cut || (right !== undefined && spans.right.cut);
  return (
    <div className={height} aria-hidden="true" data-chart>
      <ResponsiveContainer width="100%" height="100%">
        <LineChart
          accessibilityLayer={false}
          data={[...rows]}
          margin={isCut ? { ...MARGIN, top: MARGIN.top + SAID } : MARGIN}
          onClick={({ activeIndex }) => {
            const row = Number(activeIndex);
            if (onPick && rows[row]) onPick(row);
          }}
        >
          <CartesianGrid stroke={LINE} vertical={false} />
          {axisAcross(across)}
          {axisUp('left', left, spans.left)}
          {right ? axisUp('right', right, spans.right) : null}
          {spans.left.cut ? <Cut side="left" from={(left.tick ?? left.write)(spans.left.domain[0])} /> : null}
          {right && spans.right.cut ? <Cut side="right" from={right.write(spans.right.domain[0])} /> : null}
          {tell ? (
            <Tooltip
              contentStyle={TOLD}
              labelStyle={{ color: 'var(--ink)', fontWeight: 600 }}
              itemStyle={{ color: 'var(--ink)' }}
              formatter={(value, name) => [axisOf(name).write(Number(value)), name]}
              labelFormatter={(at) => tell(at as number | string)}
            />
          ) : null}
          {zero ? <ReferenceLine yAxisId="left" y={0} stroke="var(--ink)" /> : null}
          {mark ? (
            <ReferenceLine
              yAxisId="left"
              x={mark.at}
              stroke={mark.quiet ? 'var(--soft)' : 'var(--ink)'}
              strokeDasharray="3 3"
              {...(mark.words
                ? { label: { value: mark.words, position: 'top', fontSize: 11, fill: 'var(--ink)' } }
                : {})}
            />
          ) : null}
          {lines.map((l) => (
            <Line
              key={l.of}
              yAxisId={l.axis ?? 'left'}
              dataKey={l.of}
              name={l.name}
              type={l.steps ? 'stepAfter' : 'linear'}
              stroke={l.stroke}
              strokeWidth={l.width ?? 1}
              {...(l.dash ? { strokeDasharray: l.dash } : {})}
              dot={l.dots ? { r: l.dots } : false}
              isAnimationActive={false}
            />
          ))}
          {picked ? (
            <ReferenceDot
              yAxisId="left"
              x={picked.across}
              y={picked.value}
              r={6}
              fill="var(--ink)"
              stroke="var(--paper)"
            />
          ) : null}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}

/** Marks an axis that doesn't begin at nothing, and says so. */
function Cut({ side, from }: { side: 'left' | 'right'; from: string }) {
  const plot = usePlotArea();
  if (!plot) return null;
  const x = side === 'left' ? plot.x : plot.x + plot.width;
  const bottom = plot.y + plot.height;
  return (
    <g>
      <path d={`M${x} ${bottom - 14}l4 3l-8 4l4 3`} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
      <text
        x={side === 'left' ? plot.x - 52 : x + 52}
        y={plot.y - SAID - 4}
        fontSize={11}
        textAnchor={side === 'left' ? 'start' : 'end'}
        fill="var(--soft)"
      >
        {`scale begins at ${from}`}
      </text>
    </g>
  );
}

// Plain functions, not components: the chart looks for its axes among its own children.

function axisAcross(across: ChartProps['across']) {
  return across.names ? (
    <XAxis dataKey={across.of} tick={TICK} interval={0} angle={-28} textAnchor="end" height={56} stroke={LINE} />
  ) : (
    <XAxis
      dataKey={across.of}
      type="number"
      scale={across.scale ?? 'linear'}
      domain={across.domain ?? ['dataMin', 'dataMax']}
      {...(across.ticks ? { ticks: across.ticks } : {})}
      {...(across.tickCount ? { tickCount: across.tickCount } : {})}
      tickFormatter={across.write}
      tick={TICK}
      stroke={LINE}
    />
  );
}

function axisUp(side: 'left' | 'right', axis: ChartAxis, { domain, ticks }: Span) {
  return (
    <YAxis
      yAxisId={side}
      orientation={side}
      tick={TICK}
      tickFormatter={axis.tick ?? axis.write}
      domain={domain}
      ticks={ticks}
      interval={0}
      stroke={LINE}
      width={56}
    />
  );
}
