import { Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { dayOfIso, type NumberDemand, sayNumber } from '../../../../core/index.ts';
import { sayDate, sayDayOfMonth } from '../../../kit/ways.ts';

export interface Reading {
  readonly on: string;
  readonly value: number;
}

/** The readings of a series over time, with the limits as lines. */
export default function ReadingsChart({
  demand,
  readings,
}: {
  readonly demand: NumberDemand;
  readonly readings: readonly Reading[];
}) {
  const points = readings.map(({ on, value }) => ({ day: dayOfIso(on), value }));
  const figures = [
    ...points.map(({ value }) => value),
    ...[demand.least, demand.most].filter((limit) => limit !== null),
  ];
  const [low, high] = [Math.min(...figures), Math.max(...figures)];
  const room = (high - low || 1) * 0.12;
  // The limits, where there are any, else the span of the readings.
  const ticks = [...new Set([demand.least ?? low, demand.most ?? high])];
  const axis = { fontSize: 12, fill: 'var(--ink-2)' };
  return (
    <ResponsiveContainer width="100%" height={96}>
      <LineChart data={points} margin={{ top: 6, right: 8, bottom: 0, left: 0 }} accessibilityLayer={false}>
        <XAxis
          dataKey="day"
          type="number"
          domain={['dataMin', 'dataMax']}
          tickFormatter={(day: number) => sayDayOfMonth(day)}
          tick={axis}
          tickLine={false}
          axisLine={{ stroke: 'var(--line-2)' }}
          interval="preserveStartEnd"
          height={18}
        />
        <YAxis
          width={40}
          domain={[low - room, high + room]}
          tick={axis}
          tickLine={false}
          axisLine={false}
          tickFormatter={(value: number) => sayNumber(Number(value.toPrecision(3)))}
          ticks={ticks}
        />
        {[demand.least, demand.most].map(
          (limit) =>
            limit !== null && <ReferenceLine key={limit} y={limit} stroke="var(--ink-2)" strokeDasharray="2 3" />,
        )}
        <Tooltip
          formatter={(value) => [`${sayNumber(Number(value))} ${demand.unit}`, '']}
          labelFormatter={(day) => sayDate(Number(day))}
          separator=""
          contentStyle={{
            background: 'var(--color-base-100)',
            border: '1px solid var(--line-2)',
            fontSize: 13,
            padding: '4px 8px',
          }}
        />
        <Line
          dataKey="value"
          type="linear"
          stroke="var(--color-primary)"
          strokeWidth={1.6}
          dot={{ r: 2.6, fill: 'var(--color-primary)', strokeWidth: 0 }}
          isAnimationActive={false}
        />
      </LineChart>
    </ResponsiveContainer>
  );
}
