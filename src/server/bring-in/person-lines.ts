import { In } from 'typeorm';
import type { SameBy } from '../../contract/index.ts';
import {
  type BringField,
  DAYS_A_WEEK,
  groupBy,
  minutesAWeek,
  nameKey,
  sayDayHours,
  textOfValue,
} from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import { type Line, leftBecause, type ReadRow, type Told, UNREAD } from './read-row.ts';

/** What earlier lines of the file were about: the line by the mail, and by the plain name. */
export class SeenPeople {
  readonly mails = new Map<string, number>();
  readonly names = new Map<string, number>();
}

interface Match {
  readonly number: number;
  readonly id: string;
  readonly name: string;
  readonly email: string | null;
  readonly by: 'name' | 'mail';
}

/** The most hours of a week. */
const MOST_HOURS = DAYS_A_WEEK * 24;

/** Holds lines against the people who are here, and against the lines before them. */
export async function personLines(
  scope: Scope,
  lines: readonly Line[],
  sameBy: SameBy,
  fields: ReadonlyMap<string, BringField>,
  seen: SeenPeople,
): Promise<Told[]> {
  const rows = await scope.sql<Match>(
    `with line as materialized (select * from jsonb_to_recordset($2::jsonb) as line (number integer, name text, mail text)),
       here as (select p.id, p.name, coalesce(a.email, p.email) as email from person p left join account a on a.id = p.account_id
         where p.workspace_id = $1)
     select line.number, here.*, 'mail' as by from line join here on lower(here.email) = line.mail where line.mail <> ''
     union all
     select line.number, here.*, 'name' from line join here on plain_words(here.name) = plain_words(line.name)
       where $3 = 'mail or name'`,
    [
      JSON.stringify(
        lines.map(({ number, values }) => ({
          number,
          name: textOfValue(values, 'name'),
          mail: textOfValue(values, 'email').toLowerCase(),
        })),
      ),
      sameBy,
    ],
  );
  const matches = groupBy(rows, ({ number }) => number);
  const people = new Map(
    (await scope.find(Person, { id: In(rows.map(({ id }) => id)) })).map((person) => [person.id, person]),
  );
  return lines.map((line) => {
    const { number, values } = line;
    const title = textOfValue(values, 'name');
    const about = [textOfValue(values, 'roles'), textOfValue(values, 'team')].filter(Boolean).join(', ');
    const left = (why: string) => leftBecause(line, { title, about }, why);
    if (line.problems.length > 0) return left('');
    const problem = wholeProblem(line);
    if (problem !== null) return left(problem);
    const mail = textOfValue(values, 'email').toLowerCase();
    const key = nameKey(title);
    const twice = mail === '' ? undefined : seen.mails.get(mail);
    if (twice !== undefined) return left(`The mail stands in line ${twice} too`);
    const namesake = sameBy === 'mail or name' ? seen.names.get(key) : undefined;
    if (namesake !== undefined) return left(`The name stands in line ${namesake} too`);
    if (mail !== '') seen.mails.set(mail, number);
    seen.names.set(key, number);
    const found = matches.get(number) ?? [];
    const [only, other] = [...new Map(found.map((match) => [match.id, match])).values()];
    if (other) return left(`It has the ${only?.by} of ${only?.name} and the ${other.by} of ${other.name}`);
    const base = { ...UNREAD, title, about, values };
    const person = only && people.get(only.id);
    if (!only || !person) return { number, fate: 'new', read: base };
    const diffs = diffsOf(base, person, only.email, fields);
    return {
      number,
      fate: diffs.length === 0 ? 'same' : 'alike',
      read: {
        ...base,
        targetId: person.id,
        why: [`same ${only.by}`, ...kept(base, person)].join('; '),
        diffs,
      },
    };
  });
}

function wholeProblem({ values }: Line): string | null {
  const [from, until] = [textOfValue(values, 'worksFrom'), textOfValue(values, 'worksUntil')];
  if (from !== '' && until !== '' && until < from) return 'The last day lies before the first';
  const hours = values['hours'];
  if (typeof hours === 'number' && (hours < 0 || hours > MOST_HOURS)) return `A week has from 0 to ${MOST_HOURS} hours`;
  return null;
}

/** What stays as it is, whatever the line says. */
function kept({ title, values }: ReadRow, person: Person): string[] {
  return [
    ...(person.name === title ? [] : [`it keeps the name ${person.name}`]),
    ...(hoursFollow(values, person) ? ['its hours follow from shifts, and stay'] : []),
  ];
}

/** Whether a line has other hours of somebody whose hours follow from shifts: a sum does not say when they lie. */
export function hoursFollow({ hours }: ReadRow['values'], person: Person): boolean {
  return person.shifts.length > 0 && typeof hours === 'number' && hasOtherHours(hours, person);
}

/** Whether so many hours a week are others than somebody has. */
export const hasOtherHours = (hours: number, person: Pick<Person, 'weeks'>): boolean =>
  Math.round(hours * 60) !== Math.round(minutesAWeek(person));

function diffsOf(
  { values }: ReadRow,
  person: Person,
  email: string | null,
  fields: ReadonlyMap<string, BringField>,
): ReadRow['diffs'] {
  const now: Readonly<Record<string, string>> = {
    // Whoever signs in changes their address themselves.
    email: person.accountId === null ? (email ?? '') : textOfValue(values, 'email'),
    telephone: person.telephone,
    roles: person.roles.join(', '),
    team: person.team ?? '',
    access: person.access,
    hours: sayDayHours(Math.round(minutesAWeek(person))),
    worksFrom: person.worksFrom ?? '',
    worksUntil: person.worksUntil ?? '',
  };
  return Object.entries(now).flatMap(([key, from]) => {
    const value = values[key];
    const to =
      key === 'hours' && typeof value === 'number' ? sayDayHours(Math.round(value * 60)) : textOfValue(values, key);
    if (key === 'hours' && hoursFollow(values, person)) return [];
    return to === '' || to === from ? [] : [{ name: fields.get(key)?.name ?? key, from, to }];
  });
}
