import { Link } from 'react-router';
import type { ClientRecord } from '../../../../contract/index.ts';
import { dayOfIso, plural } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { sayDay } from '../../../kit/ways.ts';

interface ClientSchedulesProps {
  readonly client: ClientRecord;
  /** Those that stand with their plan. */
  readonly ofPlans: ReadonlySet<string>;
}

/** What is scheduled for a client beside the plans, in the order of what comes next. */
export function ClientSchedules({ client: { schedules: all, name }, ofPlans }: ClientSchedulesProps) {
  const schedules = all.filter(({ id }) => !ofPlans.has(id));
  const today = useToday();
  if (schedules.length === 0 && ofPlans.size > 0) return null;
  const times = Math.round(schedules.reduce((sum, { timesAYear }) => sum + timesAYear, 0));
  return (
    <section aria-label="Schedules">
      <h2 className="flex items-baseline gap-3 border-b border-line px-5 py-2.5 text-body leading-5.5 text-primary max-[720px]:px-4">
        {ofPlans.size > 0 ? 'Other schedules' : 'Schedules'}
        <span className="font-sans text-note font-normal font-stretch-normal text-ink-2 normal-nums">
          {schedules.length > 0 ? `${schedules.length}, ${plural(times, 'date')} a year` : ''}
        </span>
      </h2>
      {schedules.length === 0 && ofPlans.size === 0 && (
        <p className="px-5 py-2.5 text-row text-ink-2 max-[720px]:px-4">Nothing is scheduled for {name}.</p>
      )}
      <ul>
        {schedules.map(({ id, template, asset, phrase, state, next, who }) => (
          <li key={id} className="relative border-b border-line px-5 py-2 hover:bg-base-200 max-[720px]:px-4">
            <span className="flex items-baseline gap-3">
              <Link
                className="min-w-0 truncate text-body font-semibold before:absolute before:inset-0 before:content-['']"
                to={`/schedules/${id}`}
              >
                {template.name}
              </Link>
              <span className="ml-auto text-note whitespace-nowrap text-ink-2">
                {state === 'problem' ? (
                  <b className="text-ink">no plan</b>
                ) : next ? (
                  `next ${sayDay(dayOfIso(next), today)}`
                ) : (
                  state
                )}
              </span>
            </span>
            <span className="block text-row leading-5 text-ink-2">
              {phrase}
              {asset && `, ${asset.name}`}
              {`, ${who}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
