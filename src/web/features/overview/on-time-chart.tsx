import { LabelList, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { OnTimeTrend } from '../../../contract/index.ts';
import { dayOfIso, percentOf } from '../../../core/index.ts';
import { sayDayOfMonth } from '../../kit/ways.ts';

const LAST = { fontSize: 13, fontWeight: 650, fill: 'var(--ink)' } as const;

/** Per cent on time by the week: a line, as its axis need not begin at nothing. */
export default function OnTimeChart({ weeks }: Pick<OnTimeTrend, 'weeks'>) {
  const points = weeks.map(({ monday, ...of }, i) => {
    const rate = percentOf(of);
    return { day: dayOfIso(monday), rate, said: i === weeks.length - 1 ? String(rate ?? '') : '' };
  });
  const rates = points.flatMap(({ rate }) => rate ?? []);
  // Room below the lowest for what is said there.
  const least = Math.max(0, Math.min(80, Math.floor((Math.min(...rates) - 6) / 20) * 20));
  const axis = { fontSize: 13, fill: 'var(--ink-2)' };
  const said = weeks
    .map(({ monday, ...of }) => `${sayDayOfMonth(dayOfIso(monday))} ${percentOf(of) ?? 'nothing due'}`)
    .join(', ');
  return (
    <div role="img" aria-label={`Per cent on time by the week: ${said}`} className="h-full">
      <ResponsiveContainer width="100%" height={150}>
        <LineChart data={points} margin={{ top: 10, right: 14, bottom: 0, left: 0 }} accessibilityLayer={false}>
          <XAxis
            dataKey="day"
            tickFormatter={(day: number) => sayDayOfMonth(day)}
            tick={axis}
            tickLine={false}
            axisLine={{ stroke: 'var(--line-2)' }}
            interval={3}
            height={22}
            tickMargin={4}
          />
          <YAxis
            width={34}
            domain={[least, 100]}
            ticks={[least, (least + 100) / 2, 100]}
            tick={axis}
            tickLine={false}
            axisLine={false}
          />
          <Line
            dataKey="rate"
            type="linear"
            stroke="var(--color-primary)"
            strokeWidth={1.6}
            dot={{ r: 3.2, fill: 'var(--color-primary)', strokeWidth: 0 }}
            isAnimationActive={false}
          >
            <LabelList dataKey="said" position="bottom" offset={8} style={LAST} />
          </Line>
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
