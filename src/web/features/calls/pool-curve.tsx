import { Area, AreaChart, CartesianGrid, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { QuotaLook } from '../../../contract/index.ts';
import { dayOfIso, mondayOf, plural } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { sayDay } from '../../kit/ways.ts';

/** How many are left in the pool from day to day, and the day on which there are too few. */
export function PoolCurve({ forecast: { days, dryOn } }: { readonly forecast: QuotaLook['forecast'] }) {
  const today = useToday();
  const data = days.map(({ on, free }) => ({ on: dayOfIso(on), free }));
  const mondays = data
    .flatMap(({ on }) => (mondayOf(on) === on ? [on] : []))
    .filter((_, i, { length }) => i % Math.ceil(length / 7) === 0);
  const most = Math.max(1, ...data.map(({ free }) => free));
  const least = data.at(-1)?.free ?? 0;
  return (
    <figure
      className="mt-1 h-[124px]"
      aria-label={`The pool in the coming ${plural(Math.floor(data.length / 7), 'week')}: ${data[0]?.free ?? 0} at first, ${least} at the end${dryOn ? `, too few from ${sayDay(dayOfIso(dryOn), today)} on` : ''}`}
    >
      <ResponsiveContainer width="100%" height="100%">
        <AreaChart data={data} margin={{ top: 14, right: 8, bottom: 0, left: 0 }} accessibilityLayer={false}>
          <CartesianGrid vertical={false} stroke="var(--line)" />
          <XAxis
            dataKey="on"
            type="number"
            domain={['dataMin', 'dataMax']}
            ticks={mondays}
            tickFormatter={(on: number) => sayDay(on, today)}
            tick={{ fontSize: 12, fill: 'var(--ink-2)' }}
            stroke="var(--line-2)"
          />
          <YAxis
            width={40}
            domain={[0, most]}
            allowDecimals={false}
            tickCount={3}
            tick={{ fontSize: 12, fill: 'var(--ink-2)' }}
            stroke="var(--line-2)"
          />
          <Area
            dataKey="free"
            type="stepAfter"
            stroke="var(--color-primary)"
            fill="var(--petrol-2)"
            fillOpacity={0.25}
            strokeWidth={2}
            isAnimationActive={false}
          />
          {dryOn && (
            <ReferenceLine
              x={dayOfIso(dryOn)}
              stroke="var(--late)"
              label={{ value: 'dry', position: 'insideTopLeft', fontSize: 12, fill: 'var(--late)' }}
            />
          )}
        </AreaChart>
      </ResponsiveContainer>
    </figure>
  );
}
