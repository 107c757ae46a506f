import { sayDayHours, type Weekday, type WeekMinutes, weekdayName } from '../../../../core/index.ts';

const FULL = 480;

/** The hours of a week as seven columns, Monday first. */
export function WeekBars({ week, height = 22 }: { readonly week: WeekMinutes; readonly height?: number }) {
  const most = Math.max(FULL, ...week);
  const said = week
    .flatMap((minutes, i) => (minutes > 0 ? [`${weekdayName((i + 1) as Weekday)} ${sayDayHours(minutes)} h`] : []))
    .join(', ');
  return (
    <svg width={7 * 12} height={height} role="img" aria-label={said || 'no hours'} className="block">
      {week.map((minutes, i) => {
        const tall = minutes === 0 ? 1 : Math.max(2, Math.round((minutes / most) * height));
        return (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: the days of a week never move
            key={i}
            x={i * 12}
            y={height - tall}
            width={10}
            height={tall}
            fill={minutes === 0 ? 'var(--line-2)' : 'var(--color-primary)'}
          />
        );
      })}
    </svg>
  );
}
