import { WALL_NOBODY, type WallFilter, type WallRows } from '../../contract/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import type { FarWhose } from '../schedules/index.ts';
import type { RowOf, ScheduleOfRows } from './rows.ts';

/** In which of some rows a date stands that a schedule foresees, by whose it is; none where it is not asked for. */
export type Placing = (schedule: ScheduleOfRows, whose: FarWhose) => readonly string[];

const NONE: readonly string[] = [];

/** The same for dates that are not made yet as the database tells it of tasks. */
export async function placingOf(
  scope: Scope,
  kind: WallRows,
  rows: readonly RowOf[],
  { person, role, team }: WallFilter,
): Promise<Placing> {
  const people = new Map((await scope.find(Person)).map((one) => [one.id, one]));
  const byMember = new Map<string, string[]>();
  for (const { key, members } of rows)
    for (const member of members) byMember.set(member, [...(byMember.get(member) ?? []), key]);
  const keys = new Set(rows.map(({ key }) => key));
  const isAsked = (whose: FarWhose) => {
    const who = people.get(whose.assigneeId ?? '');
    if (person !== undefined && whose.assigneeId !== person) return false;
    if (role !== undefined && whose.role !== role && !who?.roles.includes(role)) return false;
    return team === undefined || whose.team === team || who?.team === team;
  };
  return ({ member }, whose) => {
    if (!isAsked(whose)) return NONE;
    if (kind === 'role' && whose.role !== null) return keys.has(whose.role) ? [whose.role] : NONE;
    if (kind === 'role' || kind === 'person') {
      if (whose.assigneeId !== null) return byMember.get(whose.assigneeId) ?? NONE;
      return kind === 'person' && keys.has(WALL_NOBODY) ? [WALL_NOBODY] : NONE;
    }
    return byMember.get(member ?? '') ?? NONE;
  };
}
