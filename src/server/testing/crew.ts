import type { Leave, PersonInput, Schedule } from '../../contract/index.ts';
import { type AssignmentRule, weeksOfShifts } from '../../core/index.ts';
import { plainInput, weekly } from './schedules.ts';
import type { Agent, TestServer } from './test-server.ts';
import { newTemplate } from './work.ts';

/** Somebody as they are written, with the hours that follow from their shifts. */
export const withHours = <P extends Pick<PersonInput, 'weeks' | 'shifts'>>(person: P): P =>
  person.shifts.length === 0 ? person : { ...person, weeks: weeksOfShifts(person.shifts, person.weeks.length) };

/** What is asked of the dock crew again and again: who has which work of a schedule, and what changes that. */
export async function crewOf(server: TestServer) {
  const ines = await server.browser('Ines Calloway');
  const idOf = new Map<string, string>();
  for (const name of ['Joss Penhale', 'Nadia Orme', 'Kit Sorrell', 'Tamsin Wray', 'Wilf Ardley'])
    idOf.set(name.split(' ')[0] ?? '', (await server.person(name)).id);
  const id = (name: string) => idOf.get(name) ?? '';

  /** A schedule of a new template, on each weekday where nothing else is said. */
  async function made(
    assignment: AssignmentRule,
    rules: object[] = [{ kind: 'weeks', every: 1, on: [1, 2, 3, 4, 5] }],
    of: object = {},
  ) {
    const words = { name: 'Round', titlePattern: 'Round of {person}', estimateMinutes: 60 };
    const templateId = await newTemplate(ines, { ...words, ...of });
    const input = {
      ...plainInput(templateId),
      assignment,
      timing: { ...plainInput(templateId).timing, dueTime: null },
    };
    const { body } = await ines
      .post('/api/schedules')
      .send({ ...input, recurrence: { ...weekly(1), rules } })
      .expect(200);
    return body.schedule as Schedule;
  }

  const tasks = (scheduleId: string) =>
    server.source.query<{ id: string; on: string; who: string | null; title: string; why: { by: string } | null }[]>(
      `select t.id, work_on as "on", (select split_part(name, ' ', 1) from person p where p.id = t.assignee_id) as who, title, why
       from task t where schedule_id = $1 order by work_on`,
      [scheduleId],
    );
  const between = async (scheduleId: string, from: string, to: string) =>
    (await tasks(scheduleId)).filter(({ on }) => on >= from && on <= to);

  /** Writes something else of a person. @returns the change */
  async function changed(name: string, of: object): Promise<string> {
    const { body: team } = await ines.get('/api/team').expect(200);
    const found = team.members.find((one: { id: string }) => one.id === id(name));
    const { id: _, signsIn: __, invitedUntil: ___, loads: ____, nextTurn: _____, ...fields } = found;
    const { body } = await ines
      .put(`/api/people/${id(name)}`)
      .send(withHours({ ...fields, ...('weeks' in of ? { shifts: [] } : {}), ...of }))
      .expect(200);
    return body.changeId;
  }

  return {
    ...{ ines, id, made, tasks, changed },
    /** "Joss Joss – Kit": who has its tasks on some days, one after the other. */
    who: async (scheduleId: string, from: string, to: string) =>
      (await between(scheduleId, from, to)).map(({ who }) => who ?? '–').join(' '),
    /** "11-30 Joss": of some days, by name. */
    heads: async (scheduleId: string, from: string, to = from) =>
      (await between(scheduleId, from, to)).map(({ on, who }) => `${on.slice(5)} ${who ?? '–'}`).sort(),
    /** By the week from Monday, from the week of today on. */
    inTurn: (...people: string[]): AssignmentRule => ({
      ...{ v: 1, kind: 'inTurn', cover: 'next' },
      turns: {
        length: { per: 'week', on: 1 },
        rosters: [{ from: '2026-11-23', people: people.map(id) }],
        swaps: [],
      },
    }),
    leaveOf: (from: string, to = from, half: Leave['half'] = null) => ({ from, to, half, note: '' }),
    enter: async (name: string, leave: object, by: Agent = ines) =>
      (
        await by
          .post(`/api/people/${id(name)}/leave`)
          .send(leave)
          .expect(200)
      ).body as { leave: Leave; changeId: string },
    undo: (changeId: string) => ines.post(`/api/changes/${changeId}/undo`).expect(200),
    /** As nobody were away or covered by anybody. */
    takeBack: ({ id: leaveId, version }: Leave, by: Agent = ines) =>
      by.post(`/api/leave/${leaveId}/take-back`).send({ version }),
    allThere: () => server.source.query('delete from leave; update person set deputy_id = null'),
  };
}

export type Crew = Awaited<ReturnType<typeof crewOf>>;
