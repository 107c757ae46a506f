import { MOST_WHOLE, type Schedule, type ScheduleInput, type SchedulePatch } from '../../contract/index.ts';
import { dayOfIso, givenTo, pauseFrom, resumeFrom } from '../../core/index.ts';
import type { Agent } from './test-server.ts';

/** Changes a few schedules in one go, each from the version it is seen in. */
export const changeSeveral = (by: Agent, changes: readonly (readonly [Schedule, SchedulePatch['set']])[], path = '') =>
  by.post(`/api/schedules/changes${path}`).send({
    changes: changes.map(([{ id, version }, set]) => ({ id, version, set })),
  });

export const oneSchedule = async (by: Agent, id: string): Promise<Schedule> =>
  (await by.get(`/api/schedules/${id}`).expect(200)).body;

/** All schedules that fit, whole, by name. */
export async function allSchedules(by: Agent, filter: object = {}): Promise<Schedule[]> {
  const query = { order: 'name', ...filter };
  const { ids } = (await by.get('/api/schedules/fitting').query(query).expect(200)).body as { ids: string[] };
  const all: Schedule[] = [];
  for (let at = 0; at < ids.length; at += MOST_WHOLE) {
    const { body } = await by
      .post('/api/schedules/whole')
      .send({ ids: ids.slice(at, at + MOST_WHOLE) })
      .expect(200);
    const here = new Map((body.schedules as Schedule[]).map((one) => [one.id, one]));
    all.push(...ids.slice(at, at + MOST_WHOLE).flatMap((id) => here.get(id) ?? []));
  }
  return all;
}

/** As the table's own word for it does. */
export async function pause(by: Agent, { id }: Pick<Schedule, 'id'>, on = '2026-11-24'): Promise<Schedule> {
  const schedule = await oneSchedule(by, id);
  const { pauses } = pauseFrom(schedule, dayOfIso(on));
  await changeSeveral(by, [[schedule, { pauses: [...pauses] }]]).expect(200);
  return oneSchedule(by, id);
}

export async function resume(by: Agent, { id }: Pick<Schedule, 'id'>, on = '2026-11-24'): Promise<Schedule> {
  const schedule = await oneSchedule(by, id);
  const { pauses } = resumeFrom(schedule, dayOfIso(on));
  await changeSeveral(by, [[schedule, { pauses: [...pauses] }]]).expect(200);
  return oneSchedule(by, id);
}

/** A schedule of the workspace's own for the last working day of each month. */
export const plainInput = (templateId: string, rest: Partial<ScheduleInput> = {}): ScheduleInput => ({
  templateId,
  clientId: null,
  assetId: null,
  assignment: givenTo(null),
  recurrence: {
    start: '2026-11-24',
    rules: [{ kind: 'months', every: 1, months: [], on: [{ kind: 'workingDay', nth: -1 }], missing: 'last' }],
    end: { kind: 'never' },
    dayOff: 'preceding',
  },
  timing: {
    appears: { amount: -1, unit: 'workingDay' },
    starts: { amount: 0, unit: 'day' },
    due: { amount: 0, unit: 'day' },
    startTime: null,
    dueTime: '12:00',
    reminders: [],
    zone: null,
  },
  overlap: { kind: 'add' },
  pauses: [],
  exceptions: [],
  revisions: [],
  ...rest,
});
export const weekly = (weekday: 1 | 2 | 3 | 4 | 5, start = '2026-11-24'): ScheduleInput['recurrence'] => ({
  start,
  rules: [{ kind: 'weeks', every: 1, on: [weekday] }],
  end: { kind: 'never' },
  dayOff: 'none',
});

/** The schedule of a template for an asset, by their names. */
export async function scheduleNamed(by: Agent, template: string, asset: string): Promise<Schedule> {
  const found = (await schedulesFound(by, `${template} ${asset}`)).find((one) => one.asset?.name === asset);
  if (!found) throw new Error(`There is no schedule of ${template} for ${asset}.`);
  return found;
}

/** The first schedules that a jump finds by words, whole: without planning all there are, as a list of them does. */
export async function schedulesFound(by: Agent, words: string): Promise<Schedule[]> {
  const { body } = await by.get('/api/find').query({ q: words }).expect(200);
  return Promise.all((body.schedules as { id: string }[]).map(({ id }) => oneSchedule(by, id)));
}
