'use client';

import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { ChartAxis, ChartProps } from './types.ts';

const TICK = { fontSize: 11, fill: 'var(--soft)' };
const LINE = 'var(--line)';
const TOLD = { background: 'var(--sheet)', border: `1px solid ${LINE}`, fontSize: 12 };
const MARGIN = { top: 16, right: 16, left: 4, bottom: 4 };

/** Draws a chart of lines; see ChartProps. */
export function Drawing({ height, rows, lines, across, left, right, mark, picked, zero, tell, onPick }: ChartProps) {
  const axisOf = (name: unknown): ChartAxis => {
    const line = lines.find((l) => l.name === name);
    return line?.axis === 'right' && right ? right : left;
  };
  return (
    <div className={height} aria-hidden="true" data-chart>
      <ResponsiveContainer width="100%" height="100%">
        <LineChart
          accessibilityLayer={false}
          data={[...rows]}
          margin={MARGIN}
          onClick={({ activeIndex }) => {
            const row = Number(activeIndex);
            if (onPick && rows[row]) onPick(row);
          }}
        >
          <CartesianGrid stroke={LINE} vertical={false} />
          {axisAcross(across)}
          {axisUp('left', left)}
          {right ? axisUp('right', right) : null}
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

function axisUp(side: 'left' | 'right', axis: ChartAxis) {
  return (
    <YAxis
      yAxisId={side}
      orientation={side}
      tick={TICK}
      tickFormatter={axis.write}
      {...(axis.domain ? { domain: axis.domain } : {})}
      stroke={LINE}
      width={56}
    />
  );
}
