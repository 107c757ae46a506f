import { Bar, CartesianGrid, ComposedChart, LabelList, Line, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { CallFigures } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { sayDayOfMonth } from '../../kit/ways.ts';
import { useWidth } from '../../kit/width.ts';
import { FIGURE_FILLS, FigureHatch } from './figure-fills.tsx';
import { stacked } from './figure-words.ts';
import { WEEK_AXIS } from './week-axis.ts';

interface WeekBarsProps {
  readonly figures: CallFigures;
  /** The week whose calls are shown. */
  readonly chosen: string | null;
  readonly onChoose: (monday: string) => void;
}

const AXIS = { fontSize: 12.5, fill: 'var(--ink-2)' } as const;
const HEIGHT = 268;
/** As wide as a figure above a bar is. */
const LEAST_PIXELS = 30;
/** As wide as a week's first day is, with room around it. */
const LABEL_PIXELS = 58;

/** Calls by the week and how they ended, each bar as high as what was listed; a week is chosen in it. */
export default function WeekBars({ figures: { outcomes, weeks }, chosen, onChoose }: WeekBarsProps) {
  const [element, width] = useWidth<HTMLDivElement>();
  const kinds = stacked(outcomes).filter(({ count }) => count > 0);
  const data = weeks.map(({ monday, listed, notRung, by }) => {
    const rung = by.reduce((sum, { count }) => sum + count, 0);
    return {
      ...Object.fromEntries(by.map(({ key, count }) => [`of ${key}`, count])),
      ...{ monday, notRung, listed, rung, toRing: listed - rung - notRung },
    };
  });
  const isSaid = data.length * LEAST_PIXELS <= width;
  const [first] = kinds;
  const every = Math.max(0, Math.ceil((data.length * LABEL_PIXELS) / Math.max(LABEL_PIXELS, width - WEEK_AXIS)) - 1);
  return (
    <div ref={element} aria-hidden className="cursor-pointer">
      <ResponsiveContainer width="100%" height={HEIGHT}>
        <ComposedChart
          data={data}
          margin={{ top: 20, right: 0, bottom: 0, left: 0 }}
          barCategoryGap="26%"
          accessibilityLayer={false}
          onClick={({ activeIndex }) => {
            const week = data[Number(activeIndex)];
            if (week) onChoose(week.monday);
          }}
        >
          <FigureHatch />
          <CartesianGrid vertical={false} stroke="var(--line)" />
          <XAxis
            dataKey="monday"
            tickFormatter={(monday: string) => sayDayOfMonth(dayOfIso(monday))}
            tick={AXIS}
            tickLine={false}
            axisLine={{ stroke: 'var(--line-2)' }}
            interval={every}
            height={24}
            tickMargin={5}
          />
          <YAxis width={WEEK_AXIS} tick={AXIS} tickLine={false} axisLine={false} tickCount={4} allowDecimals={false} />
          {kinds.map(({ key, follows }) => (
            <Bar key={key} dataKey={`of ${key}`} stackId="calls" isAnimationActive={false} {...FIGURE_FILLS[follows]}>
              {isSaid && key === first?.key && (
                <LabelList
                  dataKey={`of ${key}`}
                  position="insideBottom"
                  style={{ fontSize: 12.5, fontWeight: 600, fill: 'var(--color-primary-content)' }}
                />
              )}
            </Bar>
          ))}
          <Bar dataKey="notRung" stackId="calls" isAnimationActive={false} {...FIGURE_FILLS.notRung} />
          <Bar dataKey="toRing" stackId="calls" isAnimationActive={false} {...FIGURE_FILLS.toRing} />
          {isSaid && (
            <Line dataKey="listed" stroke="none" dot={false} activeDot={false} isAnimationActive={false}>
              <LabelList dataKey="rung" position="top" offset={5} style={{ fontSize: 12.5, fill: 'var(--ink)' }} />
            </Line>
          )}
          {chosen !== null && (
            <Line
              dataKey={(week: { readonly monday: string }) => (week.monday === chosen ? 0 : null)}
              stroke="none"
              dot={{ r: 5, fill: 'var(--color-accent)', strokeWidth: 0 }}
              activeDot={false}
              isAnimationActive={false}
            />
          )}
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}
