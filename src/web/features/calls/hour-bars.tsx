import { Bar, CartesianGrid, ComposedChart, LabelList, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Bar as BarOf } from './figure-words.ts';

interface HourBarsProps {
  readonly bars: readonly BarOf[];
  readonly onChoose: (at: number) => void;
}

const AXIS = { fontSize: 12.5, fill: 'var(--ink-2)' } as const;

/** How many of a hundred were reached, by the hour or the weekday; one is chosen in it. */
export default function HourBars({ bars, onChoose }: HourBarsProps) {
  const most = Math.ceil(Math.max(20, ...bars.map(({ share }) => share)) / 20) * 20;
  return (
    <div aria-hidden className="cursor-pointer">
      <ResponsiveContainer width="100%" height={150}>
        <ComposedChart
          data={[...bars]}
          margin={{ top: 8, right: 0, bottom: 0, left: 0 }}
          barCategoryGap="16%"
          accessibilityLayer={false}
          onClick={({ activeIndex }) => {
            const bar = bars[Number(activeIndex)];
            if (bar) onChoose(bar.at);
          }}
        >
          <CartesianGrid vertical={false} stroke="var(--line)" />
          <XAxis
            dataKey="name"
            tick={AXIS}
            tickLine={false}
            axisLine={{ stroke: 'var(--line-2)' }}
            height={20}
            interval={0}
          />
          <YAxis
            width={34}
            domain={[0, most]}
            ticks={[0, most / 2, most]}
            tick={AXIS}
            tickLine={false}
            axisLine={false}
          />
          <Bar dataKey="share" fill="var(--color-primary)" isAnimationActive={false}>
            <LabelList
              dataKey="share"
              position="insideBottom"
              style={{ fontSize: 12.5, fontWeight: 600, fill: 'var(--color-primary-content)' }}
            />
          </Bar>
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}
