import { Link } from 'react-router';
import type { NoticeLine, Task } from '../../../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  earliestVisitFrom,
  groupBy,
  isoOfDay,
  isToDo,
  isToSend,
  type LatestDay,
  latestDays,
  noticeStanding,
  sayNoticePeriod,
  termsOf,
} from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayDay, sayDayOfMonth, sayNear, sayShortDay } from '../../../kit/ways.ts';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { useNoticesOf } from '../../visits/api.ts';
import { NoticeSheet } from '../../visits/notice-sheet.tsx';
import { sayNotice } from '../../visits/notice-words.ts';
import { paperOfNotices } from '../../visits/paper-of-notices.ts';
import { useTaskActions } from '../api.ts';

/**
 * How far the notice of a visit is, and what went before; while one is to go, until when, by each way, and where that is past
 * for all of them, from when one that goes now would be early enough.
 */
export function NoticeFact({ task }: { readonly task: Task }) {
  const { visits, workingCalendar, today } = useWorkspace();
  const rules = task.client === null ? null : termsOf(visits, task.workType);
  const isOpen = task.state === 'coming' || isToDo(task.state);
  const { notices, isHere } = useNoticesOf(rules === null ? null : { task: task.id });
  const [newest] = notices;
  // Of what is over it is told what went; what never went is no matter any more.
  if (rules === null || (!isOpen && newest === undefined)) return null;
  if (!isHere) return null;
  const standing = noticeStanding(dayOfIso(task.on), rules, newest ? writtenOf(newest) : null, today, workingCalendar);
  const isDue = isOpen && isToSend(standing.state);
  const told = {
    ...{ taskId: task.id, notice: newest ?? null },
    standing: { ...standing, sendBy: iso(standing.sendBy), remindOn: iso(standing.remindOn) },
  };
  return (
    <div>
      <dt className="text-note leading-4 text-ink-2">notice</dt>
      <dd title={`announced ${sayNoticePeriod(rules.terms.period)}`}>
        <span className="flex items-center gap-1.5">
          <NoticeSheet state={standing.state} isWritten={newest?.way != null} />
          <span className={isDue && standing.state !== 'notWritten' && standing.state !== 'written' ? 'text-late' : ''}>
            {isOpen || newest?.sentOn ? sayNotice(told, today) : 'did not go'}
          </span>
          {newest?.way != null && <PaperLink notice={newest} />}
        </span>
        {isDue && <UntilWhen task={task} latest={latestDays(dayOfIso(task.on), rules, workingCalendar)} />}
        {isDue && task.mayPlan && (
          <Link className="link-line text-note" to={`/tasks/visits/write?of=${task.id}`}>
            {newest ? 'Write another' : 'Write the notice'}
          </Link>
        )}
        <Earlier notices={notices.slice(1)} />
      </dd>
    </div>
  );
}

const iso = (day: CivilDay | null) => (day === null ? null : isoOfDay(day));

const writtenOf = ({ way, visitOn, sentOn, mail }: NoticeLine) => ({
  ...{ way, visitOn: dayOfIso(visitOn), sentOn: sentOn === null ? null : dayOfIso(sentOn) },
  isRefused: mail?.state === 'refused',
});

function PaperLink({ notice }: { readonly notice: NoticeLine }) {
  return (
    <a
      className="link-line text-note"
      href={paperOfNotices({ notice: notice.id })}
      target="_blank"
      rel="noreferrer"
      aria-label={`Notice of ${sayShortDay(dayOfIso(notice.issuedOn))} as a PDF`}
    >
      PDF
    </a>
  );
}

/** What was written before, whose place another took. */
function Earlier({ notices }: { readonly notices: readonly NoticeLine[] }) {
  const written = notices.filter(({ way }) => way !== null);
  if (written.length === 0) return null;
  return (
    <ul className="text-note leading-4.5 text-ink-2">
      {written.map((notice) => (
        <li key={notice.id}>
          {notice.sentOn
            ? `before: ${notice.way}, sent ${sayDayOfMonth(dayOfIso(notice.sentOn))} for ${sayShortDay(dayOfIso(notice.visitOn))}`
            : `before: written for ${sayShortDay(dayOfIso(notice.visitOn))}, never sent`}{' '}
          <PaperLink notice={notice} />
        </li>
      ))}
    </ul>
  );
}

/** Until when it can go, by each way; where that is past for all of them, what it means. */
function UntilWhen({ task, latest }: { readonly task: Task; readonly latest: readonly LatestDay[] }) {
  const { visits, workingCalendar, today } = useWorkspace();
  const { impactOfSeveral, changeSeveral } = useTaskActions();
  const { look, busy, dialog } = useLookedAt<{ readonly what: string; readonly on: string }>({
    impactOf: ({ on }) => impactOfSeveral([task], { kind: 'moveTo', on }),
    save: ({ what, on }) => changeSeveral([task], { kind: 'moveTo', on }, () => `${what}.`),
    hasReach: false,
    onRefused: sayTrouble,
  });
  const [quickest] = latest;
  const rules = termsOf(visits, task.workType);
  if (quickest === undefined || rules === null) return null;
  const left = latest.filter(({ on }) => on >= today);
  const words = (days: readonly LatestDay[]) =>
    [...groupBy(days, ({ on }) => on)]
      .map(([on, ways]) => `${ways.map(({ way }) => way.name).join(' or ')} until ${sayNear(on, today)}`)
      .join(', ');
  if (left.length > 0) return <span className="block">{words(left)}</span>;
  const earliest = earliestVisitFrom(today, rules.terms.period, quickest.way, workingCalendar);
  const to = sayDay(earliest.visit, today);
  return (
    <>
      <span className="block">it had to go {words(latest.filter(({ on }) => on === quickest.on))}</span>
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
      {dialog}
    </>
  );
}
