import { Bar, Cell, ComposedChart, LabelList, Line, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { LogFigures } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, percentOf } from '../../../core/index.ts';
import { sayDayOfMonth } from '../../kit/ways.ts';
import { useWidth } from '../../kit/width.ts';
import { missedOf, onTimeOf } from './log-words.ts';

interface RateChartProps {
  readonly weeks: readonly (LogFigures & { readonly monday: string })[];
  /** The week whose days are shown alone. */
  readonly chosen: CivilDay | null;
  readonly onChoose: (monday: CivilDay) => void;
}

/** As wide as the figure above a bar is, with room around it. */
const LEAST_PIXELS = 26;
/** As wide as “20 Jul” below it, with room around it. */
const LEAST_PIXELS_OF_DAY = 72;
const AXIS = { fontSize: 13, fill: 'var(--ink-2)' } as const;

/** Per cent on time by the week as a line, and below it what was late, lapsed or is still open. */
export default function RateChart({ weeks, chosen, onChoose }: RateChartProps) {
  const points = weeks.map((week) => ({
    day: dayOfIso(week.monday),
    rate: percentOf(onTimeOf(week)),
    missed: missedOf(week),
  }));
  const rates = points.flatMap(({ rate }) => rate ?? []);
  const least = Math.max(0, Math.min(80, Math.floor((Math.min(100, ...rates) - 4) / 20) * 20));
  const [element, width] = useWidth<HTMLDivElement>();
  const isSaid = points.length * LEAST_PIXELS <= width;
  const most = Math.max(1, ...points.map(({ missed }) => missed));
  const said = Math.max(1, Math.min(7, Math.floor(width / LEAST_PIXELS_OF_DAY)));
  const every = Math.max(0, Math.ceil(points.length / said) - 1);
  const choose = (index: unknown) => {
    const point = points[Number(index)];
    if (point) onChoose(point.day);
  };
  const margin = { top: 10, right: 16, bottom: 0, left: 0 };
  return (
    <div ref={element} aria-hidden className="cursor-pointer">
      <ResponsiveContainer width="100%" height={104}>
        <ComposedChart
          data={points}
          margin={margin}
          accessibilityLayer={false}
          onClick={({ activeIndex }) => choose(activeIndex)}
        >
          <XAxis dataKey="day" scale="band" hide />
          <YAxis
            width={54}
            domain={[least, 100]}
            ticks={[least, (least + 100) / 2, 100]}
            tick={AXIS}
            tickLine={false}
            axisLine={false}
          />
          {chosen !== null && (
            <ReferenceLine x={chosen} stroke="var(--color-accent)" strokeWidth={18} strokeOpacity={0.35} />
          )}
          <Line
            dataKey="rate"
            type="linear"
            stroke="var(--color-primary)"
            strokeWidth={1.6}
            dot={isSaid ? { r: 3.2, fill: 'var(--color-primary)', strokeWidth: 0 } : false}
            isAnimationActive={false}
          />
        </ComposedChart>
      </ResponsiveContainer>
      <ResponsiveContainer width="100%" height={62}>
        <ComposedChart
          data={points}
          margin={{ ...margin, top: 16 }}
          accessibilityLayer={false}
          onClick={({ activeIndex }) => choose(activeIndex)}
        >
          <XAxis
            dataKey="day"
            tickFormatter={(day: number) => sayDayOfMonth(day)}
            tick={AXIS}
            tickLine={false}
            axisLine={{ stroke: 'var(--line-2)' }}
            interval={every}
            height={22}
            tickMargin={4}
          />
          <YAxis
            width={54}
            domain={[0, most]}
            ticks={[0]}
            tickFormatter={() => 'missed'}
            tick={AXIS}
            tickLine={false}
            axisLine={false}
          />
          <Bar dataKey="missed" fill="var(--late-fill)" isAnimationActive={false} maxBarSize={9}>
            {points.map(({ day }) => (
              <Cell key={day} fill={day === chosen ? 'var(--color-accent)' : 'var(--late-fill)'} />
            ))}
            {isSaid && (
              <LabelList dataKey="missed" position="top" offset={3} style={{ fontSize: 12, fill: 'var(--ink-2)' }} />
            )}
          </Bar>
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}
