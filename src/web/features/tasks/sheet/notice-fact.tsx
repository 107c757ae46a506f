import type { Task } from '../../../../contract/index.ts';
import {
  dayOfIso,
  earliestVisitFrom,
  groupBy,
  isoOfDay,
  isToDo,
  type LatestDay,
  latestDays,
  sayNoticePeriod,
  termsOf,
} from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayDay, sayNear } from '../../../kit/ways.ts';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { useTaskActions } from '../api.ts';

/**
 * Until when the notice of a visit has to go, by each way; where that is past for all of them, from when one that goes now
 * would be early enough. Whether one went is not known here.
 */
export function NoticeFact({ task }: { readonly task: Task }) {
  const { visits, workingCalendar, today } = useWorkspace();
  const { impactOfSeveral, changeSeveral } = useTaskActions();
  const { look, busy, dialog } = useLookedAt<{ readonly what: string; readonly on: string }>({
    impactOf: ({ on }) => impactOfSeveral([task], { kind: 'moveTo', on }),
    save: ({ what, on }) => changeSeveral([task], { kind: 'moveTo', on }, () => `${what}.`),
    hasReach: false,
    onRefused: sayTrouble,
  });
  const rules = task.client === null || !isToDo(task.state as 'open') ? null : termsOf(visits, task.workType);
  if (rules === null) return null;
  const latest = latestDays(dayOfIso(task.on), rules, workingCalendar);
  const left = latest.filter(({ on }) => on >= today);
  const [quickest] = latest;
  if (quickest === undefined) return null;
  const period = `announced ${sayNoticePeriod(rules.terms.period)}`;
  const earliest = earliestVisitFrom(today, rules.terms.period, quickest.way, workingCalendar);
  const words = (days: readonly LatestDay[]) =>
    [...groupBy(days, ({ on }) => on)]
      .map(([on, ways]) => `${ways.map(({ way }) => way.name).join(' or ')} until ${sayNear(on, today)}`)
      .join(', ');
  const to = sayDay(earliest.visit, today);
  return (
    <div>
      <dt className="text-note leading-4 text-ink-2">notice</dt>
      <dd title={period}>
        {left.length > 0 ? (
          words(left)
        ) : (
          <>
            it had to go {words(latest.filter(({ on }) => on === quickest.on))}
            <span className="block text-note leading-4.5">
              One that goes {sayNear(earliest.send, today)} allows {to} at the earliest.{' '}
              {task.mayPlan && (
                <button
                  type="button"
                  className="link-line"
                  disabled={busy}
                  onClick={() => look({ what: `“${task.title}” is moved to ${to}`, on: isoOfDay(earliest.visit) })}
                >
                  Move the visit to {to}
                </button>
              )}
            </span>
          </>
        )}
        {dialog}
      </dd>
    </div>
  );
}
