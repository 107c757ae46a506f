import type { NoticeDraft, NoticeLook } from '../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  earliestVisitFrom,
  isoOfDay,
  isToDo,
  LETTER_LANGUAGES,
  type LetterLanguage,
  type LetterValues,
  latestSending,
  sayDayIn,
  sayWindow,
  termsOf,
  visitTimes,
  type WorkingCalendar,
} from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import { invalid, notFound, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { takesMails } from '../post/index.ts';
import { phrasesOf, readableSchedule, scheduleRows } from '../schedules/index.ts';
import { nameOf } from '../tasks/stored/index.ts';
import { NEWEST_COLUMNS, NEWEST_NOTICE, type NewestNotice, standingOf } from './standing.ts';

interface DraftRow extends NewestNotice {
  readonly taskId: string;
  readonly scheduleId: string | null;
  readonly version: number;
  readonly title: string;
  readonly on: string;
  readonly startTime: string | null;
  readonly dueTime: string | null;
  readonly state: string;
  readonly workType: string | null;
  readonly templateName: string | null;
  readonly clientId: string;
  readonly clientName: string;
  readonly address: string;
  readonly contact: string | null;
  readonly email: string | null;
  readonly assetId: string | null;
  readonly assetName: string | null;
  readonly place: string | null;
  readonly who: string | null;
  /** The newest that has gone and still stands. */
  readonly goneId: string | null;
  readonly goneOn: string | null;
}

/** Whom a client's letters are to: their first contact; a mail goes to the first who has an address for it. */
const CONTACT = `(select name from contact where workspace_id = t.workspace_id and client_id = t.client_id
  order by position, id limit 1)`;
export const mailAddressOf = (workspace: string, client: string): string =>
  `(select email from contact where workspace_id = ${workspace} and client_id = ${client} and email <> ''
      and ${takesMails(workspace, 'email')}
    order by prefers is distinct from 'mail', position, id limit 1)`;

/** What is known of visits for their notices, in the order in which they are asked for. @throws Refusal for what is no visit, or is over */
export async function draftsOf(
  scope: Scope,
  { tasks: ids, language, issuedOn, signedBy, reason }: NoticeLook,
): Promise<NoticeDraft[]> {
  const rows = await scope.sql<DraftRow>(
    `select t.id as "taskId", t.schedule_id as "scheduleId", t.version, t.title, t.work_on as "on", t.start_time as "startTime",
       t.due_time as "dueTime", t.state, c.work_type as "workType", ${nameOf('template', 't.template_id')} as "templateName",
       t.client_id as "clientId", client.name as "clientName", client.address, ${CONTACT} as contact, ${mailAddressOf('t.workspace_id', 't.client_id')} as email,
       t.asset_id as "assetId", a.name as "assetName", a.place, ${nameOf('person', 't.assignee_id')} as who,
       gone.id as "goneId", gone.sent_on as "goneOn", ${NEWEST_COLUMNS}
     from task t join work_content c on c.workspace_id = t.workspace_id and c.id = t.content_id
     left join client on client.workspace_id = t.workspace_id and client.id = t.client_id
     left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
     left join lateral (select id, sent_on from notice n where n.workspace_id = t.workspace_id and n.task_id = t.id
       and n.sent_on is not null order by n.id desc limit 1) gone on true
     ${NEWEST_NOTICE}
     where t.workspace_id = $1 and t.id = any($2::uuid[])`,
    [ids],
  );
  const byId = new Map(rows.map((row) => [row.taskId, row]));
  const signer = await signerName(scope, signedBy);
  const rules = await rulesInWords(scope, rows);
  const calendar = await scope.calendar();
  return ids.map((id) => {
    const row = byId.get(id);
    if (row === undefined) throw notFound('task');
    return draftOf(scope, row, calendar, {
      ...{ language, signer, reason },
      issued: dayOfIso(issuedOn),
      rule: rules.get(row.scheduleId ?? '') ?? '',
    });
  });
}

interface Around {
  readonly language: LetterLanguage;
  readonly issued: CivilDay;
  readonly signer: string;
  readonly reason: string | undefined;
  readonly rule: string;
}

function draftOf(scope: Scope, row: DraftRow, calendar: WorkingCalendar, around: Around): NoticeDraft {
  const { visits } = scope.workspace;
  const rules = row.clientId === null ? null : termsOf(visits, row.workType);
  const standing = rules && standingOf(scope, { on: dayOfIso(row.on), workType: row.workType }, row, calendar);
  if (!rules || !standing)
    throw invalid([{ path: 'tasks', message: `“${row.title}” is no visit that has to be announced.` }]);
  if (!isToDo(row.state as 'open')) throw notNow(`“${row.title}” is over: nothing is announced any more.`);
  const { language } = around;
  const on = dayOfIso(row.on);
  const address = linesOf(row.address);
  const times = visitTimes(row, visits, row.workType);
  const values: LetterValues = {
    client: row.clientName,
    contact: row.contact ?? row.clientName,
    address: address.join(', '),
    asset: row.assetName ?? '',
    place: row.place ?? '',
    date: sayDayIn(on, language),
    window: sayWindow(times.startTime, times.dueTime, language),
    person: row.who ?? '',
    reason: around.reason ?? row.templateName ?? row.title,
    rule: around.rule,
    type: row.workType ?? '',
    issued: sayDayIn(around.issued, language),
    answer: visits.answering,
    signed: around.signer,
  };
  const gone = row.goneId !== null && row.goneOn !== null ? { id: row.goneId, sentOn: row.goneOn } : null;
  return {
    ...{ taskId: row.taskId, version: row.version, title: row.title, on: row.on, startTime: times.startTime },
    ...{ dueTime: times.dueTime, workType: row.workType ?? '', who: row.who, standing, values },
    client: { id: row.clientId, name: row.clientName },
    asset: row.assetId === null ? null : { id: row.assetId, name: row.assetName ?? '', place: row.place ?? '' },
    ways: rules.ways.map((way) => ({
      ...{ name: way.name, kind: way.kind },
      sendBy: isoOfDay(latestSending(on, rules.terms.period, way, calendar)),
      earliest: isoOfDay(earliestVisitFrom(scope.now.day, rules.terms.period, way, calendar).visit),
    })),
    email: row.email ?? '',
    to: [...new Set([values.contact, row.clientName, ...address])],
    replaces: gone,
    replacing: gone && LETTER_LANGUAGES[language].replaces(sayDayIn(dayOfIso(gone.sentOn), language)),
  };
}

const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

async function signerName(scope: Scope, id: string | undefined): Promise<string> {
  if (id === undefined) return scope.person?.name ?? '';
  const person = await scope.one(Person, id, 'person');
  return person.name;
}

/** How often each is done, by its schedule. */
async function rulesInWords(scope: Scope, rows: readonly DraftRow[]): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(rows.flatMap(({ scheduleId }) => scheduleId ?? []))];
  if (ids.length === 0) return new Map();
  const schedules = await scheduleRows(scope, { ids });
  return new Map(schedules.map((row) => [row.id, phrasesOf(scope, readableSchedule(scope, row)).phrase]));
}
