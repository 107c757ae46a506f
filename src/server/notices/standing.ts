import type { VisitLine } from '../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, noticeStanding, termsOf, type WorkingCalendar } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';

/** Of the newest notice of a visit, what its standing is told from; all null where there is none. */
export interface NewestNotice {
  readonly noticeId: string | null;
  readonly way: string | null;
  readonly visitOn: string | null;
  readonly sentOn: string | null;
  readonly mailState: 'waiting' | 'sent' | 'refused' | null;
}

/** The newest notice of a task `t`, as `n`, and the mail it left by, as `m`. */
export const NEWEST_NOTICE = `left join lateral (
    select * from notice n where n.workspace_id = t.workspace_id and n.task_id = t.id order by n.id desc limit 1) n on true
  left join mail m on m.workspace_id = n.workspace_id and m.id = n.mail_id`;
export const NEWEST_COLUMNS = `n.id as "noticeId", n.way, n.visit_on as "visitOn", n.sent_on as "sentOn", m.state as "mailState"`;

/** How far the notice of a visit is, by what the workspace has settled; null where work of its type is not announced. */
export function standingOf(
  scope: Scope,
  visit: { readonly on: CivilDay; readonly workType: string | null },
  newest: NewestNotice | null,
  calendar: WorkingCalendar,
): VisitLine['standing'] | null {
  const rules = termsOf(scope.workspace.visits, visit.workType);
  if (rules === null) return null;
  const written =
    newest === null || newest.noticeId === null || newest.visitOn === null
      ? null
      : {
          way: newest.way,
          visitOn: dayOfIso(newest.visitOn),
          sentOn: newest.sentOn === null ? null : dayOfIso(newest.sentOn),
          isRefused: newest.mailState === 'refused',
        };
  const { state, sendBy, remindOn, inTime } = noticeStanding(visit.on, rules, written, scope.now.day, calendar);
  const iso = (day: CivilDay | null) => (day === null ? null : isoOfDay(day));
  return { state, sendBy: iso(sendBy), remindOn: iso(remindOn), inTime };
}

/** The types of work that have to be announced; of one that is asked for, whether it is among them. */
export const announcedTypes = ({ workspace }: Scope, only?: string): string[] =>
  workspace.visits.terms.map(({ type }) => type).filter((type) => only === undefined || type === only);
