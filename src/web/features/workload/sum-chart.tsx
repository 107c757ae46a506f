import { Bar, ComposedChart, LabelList, Line, ResponsiveContainer, YAxis } from 'recharts';
import type { WorkloadCell } from '../../../contract/index.ts';
import { hoursOf } from './workload-words.ts';

interface SumChartProps {
  readonly sums: readonly WorkloadCell[];
}

const HEIGHT = 104;

/** All of them by the week: done, to be done, foreseen; dotted is what they can do. */
export default function SumChart({ sums }: SumChartProps) {
  const points = sums.map((sum) => ({ ...sum, total: sum.done + sum.open + sum.foreseen }));
  const most = Math.max(60, ...points.map(({ total, capacity }) => Math.max(total, capacity)));
  return (
    <ResponsiveContainer width="100%" height={HEIGHT}>
      <ComposedChart
        data={points}
        margin={{ top: 18, right: 0, bottom: 0, left: 0 }}
        barCategoryGap="26%"
        accessibilityLayer={false}
      >
        <YAxis hide domain={[0, most * 1.04]} />
        <Bar dataKey="done" stackId="work" fill="var(--color-primary)" isAnimationActive={false} />
        <Bar dataKey="open" stackId="work" fill="var(--petrol-2)" isAnimationActive={false} />
        <Bar
          dataKey="foreseen"
          stackId="work"
          fill="var(--color-base-100)"
          stroke="var(--petrol-2)"
          strokeDasharray="2 2"
          isAnimationActive={false}
        />
        {/* A bar of nothing would not say its figure. */}
        <Line dataKey="total" stroke="none" dot={false} activeDot={false} isAnimationActive={false}>
          <LabelList
            dataKey="total"
            position="top"
            offset={4}
            formatter={(value) => hoursOf(Number(value))}
            style={{ fontSize: 12.5, fill: 'var(--ink)' }}
          />
        </Line>
        <Line
          dataKey="capacity"
          type="step"
          stroke="var(--ink-2)"
          strokeDasharray="1.5 3"
          dot={false}
          isAnimationActive={false}
        />
      </ComposedChart>
    </ResponsiveContainer>
  );
}
