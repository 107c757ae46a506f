import type { PaperOf, TaskLine } from '../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  isoOfDay,
  mondayOf,
  monthName,
  peopleHere,
  plural,
  sayDate,
  sayDay,
  sayDayOfMonth,
  sayDuration,
  sayTime,
  sayWhyListed,
  weekdayName,
  weekdayOf,
  yearMonthDay,
} from '../../core/index.ts';
import { callDay } from '../calls/index.ts';
import { Client } from '../clients/index.ts';
import { colleagues } from '../people/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Paper } from '../platform/pdf.ts';
import type { Scope } from '../platform/scope.ts';
import { foreseenFrom, foreseenOf, KEPT_DAYS } from '../schedules/index.ts';
import { daySheet } from '../tasks/index.ts';
import { type Column, TablePaper } from './table-paper.ts';

export interface Written {
  readonly paper: Paper;
  readonly name: string;
}

const paperOf = (scope: Scope, title: string, says: string, columns: readonly Column[], isWide = false): TablePaper => {
  const { workspace } = scope;
  const [date = '', time = ''] = scope.moment(scope.instant).split('T');
  const made = `made ${sayDate(dayOfIso(date), workspace.ways)}, ${sayTime(time, workspace.ways)}`;
  return new TablePaper({ workspace: workspace.name, title, says, made }, columns, { isWide });
};

/** "Tuesday 24 Nov 2026" */
const dayNamed = ({ workspace: { ways } }: Scope, day: CivilDay): string =>
  `${weekdayName(weekdayOf(day))} ${sayDate(day, ways)}`;

const timesOf = ({ workspace: { ways } }: Scope, from: string | null, to: string | null): string => {
  const [start, end] = [from === null ? null : sayTime(from, ways), to === null ? null : sayTime(to, ways)];
  if (start !== null) return end === null ? start : `${start}–${end}`;
  return end === null ? '' : `by ${end}`;
};

/** Tasks of one person's day that are on it: what is late, of the day, and to take; each with its check lines to tick. */
export async function dayPaper(scope: Scope, { person, on }: PaperOf['day']): Promise<Written> {
  const day = on === undefined ? scope.now.day : dayOfIso(on);
  const sheet = await daySheet(scope, person, isoOfDay(day));
  const open = [...sheet.late, ...sheet.thisDay].filter(({ state }) => state !== 'done' && state !== 'toCheck');
  const lines = await checkLinesOf(
    scope,
    [...open, ...sheet.offered.tasks].map(({ id }) => id),
  );
  const minutes = open.reduce((sum, { estimateMinutes }) => sum + estimateMinutes, 0);
  const title = `${sheet.person.name}, ${dayNamed(scope, day)}`;
  const shifts = sheet.person.shifts.map(({ from, to }) => timesOf(scope, from, to)).join(', ');
  const says = [plural(open.length, 'task'), sayDuration(minutes), shifts && `at work ${shifts}`]
    .filter(Boolean)
    .join(', ');
  const paper = paperOf(scope, title, says, [
    { name: 'what', share: 6 },
    { name: 'for whom, where', share: 4 },
    { name: 'when', share: 2 },
    { name: 'about', share: 1.2 },
  ]);
  const band = (name: string, tasks: readonly TaskLine[], count = tasks.length) => {
    if (tasks.length === 0) return;
    paper.band(`${name} (${count})`);
    for (const task of tasks)
      paper.row({
        cells: [
          task.hold === null
            ? task.title
            : `${task.title} (held up until ${sayDay(dayOfIso(task.hold.until), day)}: ${task.hold.reason})`,
          [task.client?.name, task.asset?.name].filter(Boolean).join(', '),
          [task.late ? sayDay(dayOfIso(task.dueOn), day) : '', timesOf(scope, task.startTime, task.dueTime)]
            .filter(Boolean)
            .join(' '),
          sayDuration(task.estimateMinutes),
        ],
        ticks: lines.get(task.id) ?? [],
        hasBox: true,
      });
  };
  const isOpen = ({ state }: TaskLine) => state !== 'done' && state !== 'toCheck';
  band('Late', sheet.late.filter(isOpen));
  band('This day', sheet.thisDay.filter(isOpen));
  if (sheet.projected.length > 0) {
    paper.band(`Foreseen, not made yet (${sheet.projected.length})`);
    for (const { title: what, client, asset, startTime, dueTime, estimateMinutes } of sheet.projected)
      paper.row({
        cells: [
          what,
          [client?.name, asset?.name].filter(Boolean).join(', '),
          timesOf(scope, startTime, dueTime),
          sayDuration(estimateMinutes),
        ],
        ...{ hasBox: true, isQuiet: true },
      });
  }
  band('For anyone of several', sheet.offered.tasks, sheet.offered.count);
  if (open.length + sheet.offered.count + sheet.projected.length === 0)
    paper.sentence('Nothing is to be done on this day.');
  return { paper: paper.done(), name: `day sheet ${sheet.person.name} ${isoOfDay(day)}.pdf` };
}

async function checkLinesOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, string[]>> {
  const rows = await scope.sql<{ id: string; lines: { key: string; text: string }[]; ticks: Record<string, unknown> }>(
    `select t.id, w.check_lines as lines, t.ticks from task t
     join work_content w on w.workspace_id = t.workspace_id and w.id = t.content_id
     where t.workspace_id = $1 and t.id = any($2::uuid[])`,
    [ids],
  );
  return new Map(
    rows.map(({ id, lines, ticks }) => [id, lines.filter(({ key }) => !(key in ticks)).map(({ text }) => text)]),
  );
}

/** Tasks of a day that a cell of a week names; the rest is counted. */
const NAMED_A_DAY = 8;

/** The week of a team or a role, for the wall: a row for each, a column for each day. */
export async function weekPaper(scope: Scope, { team, role, week }: PaperOf['week']): Promise<Written> {
  const monday = mondayOf(week === undefined ? scope.now.day : dayOfIso(week));
  const names = await scope.peopleNames();
  // Whoever is here by now, in the order of their names.
  const group = team === undefined ? ({ of: 'role', role: role ?? '' } as const) : ({ of: 'team', team } as const);
  const people = peopleHere(await colleagues(scope))
    .of(group)
    .map((id) => ({ id, name: names.get(id) ?? '' }));
  const ids = people.map(({ id }) => id);
  const made = await scope.sql<{ personId: string; on: string; title: string; at: string | null; done: boolean }>(
    `select assignee_id as "personId", work_on as "on", title, start_time as at, state in ('done', 'toCheck') as done from task
     where workspace_id = $1 and assignee_id = any($2::uuid[]) and work_on between $3::date and $4::date and state not in ('skipped', 'lapsed')
     order by start_time nulls last, title, id`,
    [ids, isoOfDay(monday), isoOfDay(monday + 6)],
  );
  const isTheirs = new Set<string | null>(ids);
  const foreseen =
    monday + 6 < scope.now.day || monday > scope.now.day + KEPT_DAYS
      ? []
      : await foreseenFrom(
          scope,
          ({ assigneeId, workOn }) =>
            isTheirs.has(assigneeId) && workOn >= isoOfDay(monday) && workOn <= isoOfDay(monday + 6),
        );
  const cells = new Map<string, string[]>();
  const put = (personId: string | null, on: string, words: string) => {
    const key = `${personId} ${on}`;
    cells.set(key, [...(cells.get(key) ?? []), words]);
  };
  const at = (time: string | null) => (time === null ? '' : `${sayTime(time, scope.workspace.ways)} `);
  for (const one of made) put(one.personId, one.on, `${one.done ? '✓ ' : ''}${at(one.at)}${one.title}`);
  for (const one of foreseen) put(one.assigneeId, one.workOn, `${at(one.startTime)}${one.title} (foreseen)`);
  const days = Array.from({ length: 7 }, (_, i) => monday + i);
  const name = team ?? role ?? '';
  const span = `${sayDate(monday, scope.workspace.ways)} to ${sayDate(monday + 6, scope.workspace.ways)}`;
  const calendar = await scope.calendar();
  const nameOf = (day: CivilDay) =>
    [
      `${weekdayName(weekdayOf(day)).slice(0, 3)} ${sayDayOfMonth(day, scope.workspace.ways)}`,
      calendar.holidayName(day),
    ]
      .filter(Boolean)
      .join(', ');
  const paper = paperOf(
    scope,
    `${name.charAt(0).toUpperCase()}${name.slice(1)}, ${span}`,
    `${plural(people.length, 'person', 'people')}, ${plural(made.length + foreseen.length, 'task')}`,
    [{ name: '', share: 1.2 }, ...days.map((day) => ({ name: nameOf(day), share: 1.6 }))],
    true,
  );
  await eachInTurn(people, ({ id, name: who }) =>
    paper.row({
      cells: [
        who,
        ...days.map((day) => {
          const all = cells.get(`${id} ${isoOfDay(day)}`) ?? [];
          const more = all.length - NAMED_A_DAY;
          return [...all.slice(0, NAMED_A_DAY), ...(more > 0 ? [`and ${more} more`] : [])].join('\n');
        }),
      ],
    }),
  );
  if (people.length === 0) paper.sentence('Nobody is in it.');
  return { paper: paper.done(), name: `week ${name} ${isoOfDay(monday)}.pdf` };
}

/** Half a year before and after today. */
const HALF_YEAR = 183;
const MOST_LINES = 2_000;
const STATES: Readonly<Record<string, string>> = {
  open: 'made',
  underWay: 'under way',
  toCheck: 'done',
  done: 'done',
  skipped: 'skipped',
  lapsed: 'lapsed',
};

/** What is done for a client within a year around today: what was, is made, and is foreseen. */
export async function clientPaper(scope: Scope, { client: clientId }: PaperOf['client']): Promise<Written> {
  const { name } = await scope.one(Client, clientId, 'client');
  const { day: today } = scope.now;
  const made = await scope.sql<{
    on: string;
    title: string;
    asset: string | null;
    who: string | null;
    state: string;
    minutes: number;
  }>(
    `select t.work_on as "on", t.title, a.name as asset, coalesce(p.name, t.done_by_contact) as who, t.state, t.estimate_minutes as minutes
     from task t left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
     left join person p on p.workspace_id = t.workspace_id and p.id = t.assignee_id
     where t.workspace_id = $1 and t.client_id = $2 and t.due_on between $3::date and $4::date order by t.work_on, t.id limit ${MOST_LINES}`,
    [clientId, isoOfDay(today - HALF_YEAR), isoOfDay(today + HALF_YEAR)],
  );
  const names = await scope.peopleNames();
  const foreseen = await foreseenOf(scope, today, today + HALF_YEAR, ({ row }) => row.clientId === clientId);
  const lines = [
    ...made.map((one) => ({ ...one, state: STATES[one.state] ?? one.state })),
    ...foreseen.map(({ workOn, title, assetName, assigneeId, estimateMinutes }) => ({
      ...{
        on: workOn,
        title,
        asset: assetName,
        who: names.get(assigneeId ?? '') ?? null,
        state: 'foreseen',
        minutes: estimateMinutes,
      },
    })),
  ].sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
  const minutes = lines.reduce((sum, line) => sum + line.minutes, 0);
  const { ways } = scope.workspace;
  const paper = paperOf(
    scope,
    name,
    [
      `${sayDate(today - HALF_YEAR, ways)} to ${sayDate(today + HALF_YEAR, ways)}`,
      lines.length > 0 && `${plural(lines.length, 'task')}, ${sayDuration(minutes)}`,
    ]
      .filter(Boolean)
      .join(': '),
    [
      { name: 'day', share: 2 },
      { name: 'what', share: 5 },
      { name: 'where', share: 3 },
      { name: 'who', share: 2.4 },
      { name: 'state', share: 1.4 },
    ],
  );
  let month = '';
  await eachInTurn(lines, ({ on, title, asset, who, state }) => {
    if (on.slice(0, 7) !== month) {
      month = on.slice(0, 7);
      const { month: of, year } = yearMonthDay(dayOfIso(on));
      paper.band(`${monthName(of)} ${year}`);
    }
    paper.row({
      cells: [sayDate(dayOfIso(on), ways), title, asset ?? '', who ?? '', state],
      isQuiet: state === 'foreseen',
    });
  });
  if (made.length === MOST_LINES) paper.sentence(`Of what is made only the first ${MOST_LINES} tasks stand here.`);
  if (lines.length === 0) paper.sentence('Nothing was done, and nothing is planned, within this year.');
  return { paper: paper.done(), name: `${name} ${scope.today}.pdf` };
}

/** The calls of somebody's day: whom, by which number, why, and room for how it went. */
export async function callPaper(scope: Scope, { person, on }: PaperOf['calls']): Promise<Written> {
  const day = on === undefined ? scope.now.day : dayOfIso(on);
  const list = await callDay(scope, { person, on: isoOfDay(day) });
  const rung = list.calls.filter(({ state }) => state === 'rung').length;
  const paper = paperOf(
    scope,
    `Calls of ${list.person.name}, ${dayNamed(scope, day)}`,
    [plural(list.calls.length, 'call'), rung > 0 ? `${rung} rung` : ''].filter(Boolean).join(', '),
    [
      { name: 'whom', share: 3 },
      { name: 'of', share: 3 },
      { name: 'number', share: 2.2 },
      { name: 'why', share: 3 },
      { name: 'how it went', share: 4 },
    ],
  );
  for (const { contact, client, asset, number, why, state, outcome, note } of list.calls)
    paper.row({
      cells: [
        contact.name,
        [client.name === contact.name ? null : client.name, asset].filter(Boolean).join(', '),
        number,
        sayWhyListed(why, day),
        state === 'rung' ? [outcome?.name, note].filter(Boolean).join(': ') : '\n',
      ],
      ...{ hasBox: state === 'open', isQuiet: state === 'rung' },
    });
  if (list.calls.length === 0) paper.sentence('There is no list for this day.');
  const asks = list.quotas.flatMap((quota) => quota.asks);
  if (asks.length > 0) paper.sentence(`To ask: ${asks.join(' · ')}`);
  return { paper: paper.done(), name: `calls ${list.person.name} ${isoOfDay(day)}.pdf` };
}
