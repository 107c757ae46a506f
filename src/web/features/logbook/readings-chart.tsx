import { ComposedChart, Line, ReferenceDot, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { LogSeries } from '../../../contract/index.ts';
import { dayOfIso, liesOutside, sayNumber } from '../../../core/index.ts';
import { sayDayOfMonth } from '../../kit/ways.ts';

interface ReadingsChartProps {
  readonly readings: LogSeries['readings'];
  /** In pixels. */
  readonly height: number;
}

const AXIS = { fontSize: 12, fill: 'var(--ink-2)' } as const;

/** Figures by the day as a line, between the limits that held then; what lies outside is marked by a shape of its own. */
export default function ReadingsChart({ readings, height }: ReadingsChartProps) {
  const points = readings.map(({ on, ...one }) => ({ ...one, day: dayOfIso(on) }));
  const figures = points.flatMap(({ value, least, most }) => [value, least, most].filter((one) => one !== null));
  const [low, high] = [Math.min(...figures), Math.max(...figures)];
  const room = (high - low || Math.abs(high) || 1) * 0.12;
  const domain: [number, number] = [low >= 0 ? Math.max(0, low - room) : low - room, high + room];
  const last = points.at(-1);
  // The limits of now are written at the edge; others are told by their lines.
  const ticks = [...new Set([last?.least, last?.most].filter((one) => one !== null && one !== undefined))];
  const first = points[0];
  return (
    <div aria-hidden>
      <ResponsiveContainer width="100%" height={height}>
        <ComposedChart data={points} margin={{ top: 8, right: 12, bottom: 0, left: 0 }} accessibilityLayer={false}>
          <XAxis
            dataKey="day"
            type="number"
            domain={['dataMin', 'dataMax']}
            ticks={first && last && first.day !== last.day ? [first.day, last.day] : first ? [first.day] : []}
            tickFormatter={(day: number) => sayDayOfMonth(day)}
            tick={AXIS}
            tickLine={false}
            axisLine={{ stroke: 'var(--line-2)' }}
            height={20}
            padding={{ left: 20, right: 20 }}
          />
          <YAxis
            width={46}
            domain={domain}
            ticks={ticks.length > 0 ? ticks : [low, high]}
            tickFormatter={(value: number) => sayNumber(value)}
            tick={AXIS}
            tickLine={false}
            axisLine={false}
            interval={0}
          />
          {(['least', 'most'] as const).map((limit) => (
            <Line
              key={limit}
              dataKey={limit}
              type="stepAfter"
              stroke="var(--late-fill)"
              strokeDasharray="5 4"
              strokeWidth={1.2}
              dot={false}
              isAnimationActive={false}
            />
          ))}
          <Line
            dataKey="value"
            type="linear"
            stroke="var(--color-primary)"
            strokeWidth={1.6}
            dot={points.length <= 60 ? { r: 2.4, fill: 'var(--color-primary)', strokeWidth: 0 } : false}
            isAnimationActive={false}
          />
          {points.filter(liesOutside).map(({ taskId, day, value }) => (
            <ReferenceDot key={taskId} x={day} y={value} shape={Beyond} />
          ))}
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}

/** A lozenge around what lies outside: seen without its colour. */
function Beyond({ cx = 0, cy = 0 }: { readonly cx?: number; readonly cy?: number }) {
  return (
    <path
      d={`M${cx} ${cy - 6}L${cx + 6} ${cy}L${cx} ${cy + 6}L${cx - 6} ${cy}Z`}
      fill="var(--color-base-100)"
      stroke="var(--late-fill)"
      strokeWidth={2.2}
    />
  );
}
