import { NONE_OF_THEM, type TaskFilter, type TaskGrouping } from '../../contract/index.ts';
import { isoOfDay, plainWords, spanOfDue, tryDayOfIso } from '../../core/index.ts';
import { assetIdsAt } from '../directory/index.ts';
import { likeLetters } from '../platform/db/like.ts';
import type { Scope } from '../platform/scope.ts';
import { ENDED, TO_DO, UNFINISHED } from '../tasks/stored/index.ts';

/** Of whom any one may take it; what is for a client to do is offered to nobody here. */
const OFFERED = {
  yes: `t.offered_to->>'of' <> 'client'`,
  no: 't.offered_to is null',
  client: `t.offered_to->>'of' = 'client' and t.assignee_id is null`,
} as const satisfies Record<NonNullable<TaskFilter['offered']>, string>;

/** A question to the table of tasks `t`: its conditions, and what they are asked with, $1 being the workspace. */
export class TaskQuestion {
  private readonly conditions = ['t.workspace_id = $1'];
  readonly params: unknown[] = [];

  /** Places a value; gives how it is named in the text. */
  with(value: unknown): string {
    this.params.push(value);
    return `$${this.params.length + 1}`;
  }

  and(condition: string): this {
    this.conditions.push(condition);
    return this;
  }

  get where(): string {
    return this.conditions.join(' and ');
  }

  /** The same question, to be asked for more. */
  copy(): TaskQuestion {
    const copy = new TaskQuestion();
    copy.conditions.push(...this.conditions.slice(1));
    copy.params.push(...this.params);
    return copy;
  }
}

/** Tasks that fit, as SQL over `task t`. */
export async function questionOf(scope: Scope, filter: TaskFilter): Promise<TaskQuestion> {
  const asked = new TaskQuestion();
  const { due, from, to, category, priority, person, role, team, client, asset, site, template, schedule } = filter;
  areThat(scope, asked, filter.are);
  if (filter.late !== undefined) asked.and(`not ${isLate(scope, asked)}`);
  if (due !== undefined) {
    const span = spanOfDue(due, scope.now.day);
    if (span.from !== null) asked.and(`t.due_on >= ${asked.with(isoOfDay(span.from))}::date`);
    asked.and(`t.due_on <= ${asked.with(isoOfDay(span.to))}::date`);
  }
  if (from !== undefined) asked.and(`t.due_on >= ${asked.with(from)}::date`);
  if (to !== undefined) asked.and(`t.due_on <= ${asked.with(to)}::date`);
  if (category !== undefined)
    asked.and(
      `t.template_id in (select id from template where workspace_id = $1 and category = ${asked.with(category)})`,
    );
  if (priority !== undefined) asked.and(`t.priority = ${asked.with(priority)}`);
  oneOrNone(asked, 't.assignee_id', person);
  if (filter.offered !== undefined) asked.and(OFFERED[filter.offered]);
  oneOrNone(asked, 't.client_id', client);
  oneOrNone(asked, 't.asset_id', asset);
  oneOrNone(asked, 't.template_id', template);
  if (schedule !== undefined) asked.and(`t.schedule_id = ${asked.with(schedule)}::uuid`);
  for (const [field, value] of [
    ['role', role],
    ['team', team],
  ] as const) {
    if (value === undefined) continue;
    const name = asked.with(value);
    const has = field === 'role' ? `roles ? ${name}::text` : `team = ${name}::text`;
    asked.and(
      `(t.assignee_id in (select id from person where workspace_id = $1 and ${has}) or t.offered_to->>'${field}' = ${name}::text)`,
    );
  }
  if (site !== undefined) asked.and(`t.asset_id = any(${asked.with(await assetIdsAt(scope, site))}::uuid[])`);
  if (filter.made !== undefined) asked.and(`t.schedule_id is ${filter.made === 'by hand' ? '' : 'not '}null`);
  if (filter.workType !== undefined)
    asked.and(
      `t.content_id in (select id from work_content where workspace_id = $1 and work_type = ${asked.with(filter.workType)})`,
    );
  for (const word of plainWords(filter.find ?? '').filter(Boolean)) {
    const like = asked.with(`%${likeLetters(word)}%`);
    asked.and(
      `(plain_words(t.title) like ${like} or plain_words(t.note) like ${like}
        or t.client_id in (select id from client where workspace_id = $1 and words like ${like})
        or t.asset_id in (select id from asset where workspace_id = $1 and words like ${like}))`,
    );
  }
  return asked;
}

function oneOrNone(asked: TaskQuestion, column: string, which: string | undefined): void {
  if (which === undefined) return;
  asked.and(which === NONE_OF_THEM ? `${column} is null` : `${column} = ${asked.with(which)}::uuid`);
}

function areThat(scope: Scope, asked: TaskQuestion, are: TaskFilter['are']): void {
  switch (are) {
    case undefined:
      return;
    case 'unfinished':
      asked.and(`t.state in ${UNFINISHED}`);
      return;
    case 'late':
      asked.and(isLate(scope, asked));
      return;
    case 'heldUp':
      asked.and(`t.state in ${TO_DO} and ${isHeldUp(scope, asked)}`);
      return;
    case 'open':
    case 'underWay':
    case 'toCheck':
    case 'done':
      asked.and(`t.state = ${asked.with(are)}`);
      return;
    case 'over':
      asked.and(`t.state in ${ENDED} and t.state <> 'done'`);
      return;
  }
}

/**
 * Whether somebody still has to do it and it should have been done, as `lookOf` tells it: by the clock of its own zone, to the
 * minute; without a time once its day is over, and not while it is held up. What is due beyond tomorrow is late by no clock.
 */
export function isLate(scope: Scope, asked: TaskQuestion): string {
  const soon = asked.with(isoOfDay(scope.now.day + 1));
  const minute = minuteThere(scope, asked);
  return `(t.state in ${TO_DO} and t.due_on <= ${soon}::date
    and t.due_on + coalesce(t.due_time, '23:59')::time < ${minute}
    and (t.held_until is null or t.held_until <= ${minute}::date))`;
}

/** Whether it can't go on for now, by the clock of its own zone. */
export function isHeldUp(scope: Scope, asked: TaskQuestion): string {
  return `t.held_until is not null and t.held_until > ${minuteThere(scope, asked)}::date`;
}

/** The civil minute by the clock of a task's own zone; that of the workspace is told once, not for each task that keeps to it. */
export function minuteThere(scope: Scope, asked: TaskQuestion): string {
  const minute = (zone: string) =>
    `date_trunc('minute', ${asked.with(scope.instant)}::timestamptz at time zone ${zone})`;
  const here = minute(`${asked.with(scope.workspace.zone)}::text`);
  return `(case when t.zone is null then ${here} else ${minute('t.zone')} end)`;
}

/** What a task is put together with others by: an id, a day or a name; null for those without. */
export const GROUP_KEYS: Readonly<Record<TaskGrouping, string>> = {
  client: 't.client_id',
  asset: 't.asset_id',
  person: 't.assignee_id',
  template: 't.template_id',
  category: '(select category from template of where of.workspace_id = t.workspace_id and of.id = t.template_id)',
  day: 't.due_on',
};

/** Those of one group, by its key as it is told: empty for those without. */
export function withinGroup(asked: TaskQuestion, by: TaskGrouping, key: string): void {
  const column = GROUP_KEYS[by];
  if (key === '') asked.and(`${column} is null`);
  else asked.and(`${column} = ${asked.with(key)}::${KEY_TYPES[by]}`);
}

export const KEY_TYPES: Readonly<Record<TaskGrouping, string>> = {
  ...{ client: 'uuid', asset: 'uuid', person: 'uuid', template: 'uuid' },
  ...{ category: 'text', day: 'date' },
};

/** Whether a key can be one of such a group. */
export function isKeyOf(by: TaskGrouping, key: string): boolean {
  if (key === '') return true;
  if (KEY_TYPES[by] === 'uuid') return /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/i.test(key);
  return by !== 'day' || tryDayOfIso(key) !== null;
}
