import { In } from 'typeorm';
import { MOST_PEOPLE, type PersonInput } from '../../contract/index.ts';
import { type Access, isoOfDay, plainWeek, textOfValue } from '../../core/index.ts';
import { insertMember, writeMember } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import { notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import type { BringIn, BringInRow } from './entity.ts';
import { keepWritten, pagesOf } from './pages.ts';
import { hasOtherHours, hoursFollow } from './person-lines.ts';
import type { ReadRow } from './read-row.ts';

/** What was written of a line: who is new, or the change that brought somebody up to date. */
export interface WrittenPerson {
  readonly newPersonId?: string;
  readonly personId?: string;
  readonly before?: Partial<PersonInput>;
  /** In which version they are by it. */
  readonly version?: number;
}

/** Writes the lines of a file; nobody is invited by it. */
export async function writePeople(scope: Scope, bringIn: BringIn): Promise<void> {
  const [there] = await scope.sql<{ count: number }>(
    'select count(*)::int as count from person where workspace_id = $1',
  );
  let count = there?.count ?? 0;
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, choice, read')) {
    const ids = rows.flatMap(({ read }) => read.targetId ?? []).sort();
    await scope.sql(
      'select id from person where workspace_id = $1 and id = any($2::uuid[]) order by id for no key update',
      [ids],
    );
    const people = new Map((await scope.find(Person, { id: In(ids) })).map((person) => [person.id, person]));
    const before: { number: number; before: WrittenPerson }[] = [];
    for (const { number, fate, choice, read } of rows) {
      const isUpdate = fate === 'alike' && (choice ?? 'update') === 'update';
      if (isUpdate) {
        const person = people.get(read.targetId ?? '');
        if (person) before.push({ number, before: await update(scope, person, read) });
      } else if (isAdded({ fate, choice })) {
        if (++count > MOST_PEOPLE)
          throw notNow(
            `A workspace has ${MOST_PEOPLE.toLocaleString('en-GB')} people at most, those who left included.`,
          );
        const { id } = await insertMember(scope, memberOf(scope, read), 'brought in');
        before.push({ number, before: { newPersonId: id } });
      }
    }
    await keepWritten(scope, bringIn, before);
  }
}

const isAdded = ({ fate, choice }: Pick<BringInRow, 'fate' | 'choice'>) =>
  fate === 'new' || (fate === 'alike' && choice === 'add');

function memberOf(scope: Scope, { values }: ReadRow): PersonInput {
  const { roles, hours } = values;
  return {
    name: textOfValue(values, 'name'),
    email: textOfValue(values, 'email') || null,
    telephone: textOfValue(values, 'telephone'),
    roles: Array.isArray(roles) ? [...roles] : [],
    team: textOfValue(values, 'team') || null,
    access: (textOfValue(values, 'access') || 'member') as Access,
    weeks: [typeof hours === 'number' ? weekOf(scope, hours) : [...scope.workspace.weekMinutes]],
    weeksFrom: isoOfDay(scope.now.day),
    shifts: [],
    shiftChanges: [],
    worksFrom: textOfValue(values, 'worksFrom') || null,
    worksUntil: textOfValue(values, 'worksUntil') || null,
    deputyId: null,
    tickets: [],
  };
}

/** Hours of a week, the same on each day on which the workspace works. */
function weekOf({ workspace: { workingWeekdays } }: Scope, hours: number): number[] {
  return [...plainWeek(Math.round((hours * 60) / Math.max(1, workingWeekdays.length)), workingWeekdays)];
}

/** Writes what the file says otherwise: hours that are the same in all leave the pattern of the week as it is. */
async function update(scope: Scope, person: Person, { values }: ReadRow): Promise<WrittenPerson> {
  const { roles, hours } = values;
  const otherHours =
    typeof hours === 'number' && hasOtherHours(hours, person) && !hoursFollow(values, person) ? hours : null;
  const text = <K extends 'telephone' | 'team' | 'worksFrom' | 'worksUntil'>(key: K) =>
    values[key] === undefined ? {} : { [key]: textOfValue(values, key) };
  const set: Partial<PersonInput> = {
    ...text('telephone'),
    ...text('team'),
    ...text('worksFrom'),
    ...text('worksUntil'),
    ...(values['email'] !== undefined && person.accountId === null ? { email: textOfValue(values, 'email') } : {}),
    ...(Array.isArray(roles) ? { roles: [...roles] } : {}),
    ...(values['access'] !== undefined ? { access: textOfValue(values, 'access') as Access } : {}),
    ...(otherHours === null ? {} : { weeks: [weekOf(scope, otherHours)] }),
  };
  const before = Object.fromEntries(
    (Object.keys(set) as (keyof PersonInput)[]).map((key) => [key, person[key]]),
  ) as Partial<PersonInput>;
  const changeId = await writeMember(scope, person, set, 'changed');
  return changeId === null ? {} : { personId: person.id, before, version: person.version + 1 };
}
