import { z } from 'zod';
import { TASK_STATES } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, isoTime, named, prose } from './fields.ts';
import { pastTaskSchema } from './schedules.ts';

/** A task as one line of a list. */
export const taskLineSchema = z.object({
  id,
  version: z.number().int(),
  title: z.string(),
  category: z.string().nullable(),
  client: named.nullable(),
  asset: named.nullable(),
  assignee: named.nullable(),
  state: z.enum([...TASK_STATES, 'coming']),
  late: z.boolean(),
  daysLate: z.number().int(),
  on: isoDate,
  startsOn: isoDate,
  dueOn: isoDate,
  startTime: isoTime.nullable(),
  dueTime: isoTime.nullable(),
  /** IANA zone in which the times are meant; null for the workspace's. */
  zone: z.string().nullable(),
  estimateMinutes: z.number().int(),
  stepsDone: z.number().int(),
  stepsTotal: z.number().int(),
  startedAt: civilMoment.nullable(),
  doneAt: civilMoment.nullable(),
});
export type TaskLine = z.infer<typeof taskLineSchema>;

export const stepSchema = z.object({
  key: z.string(),
  text: z.string(),
  tickedAt: civilMoment.nullable(),
  tickedBy: z.string().nullable(),
});
export type Step = z.infer<typeof stepSchema>;

/** A task with all there is to know when doing it. */
export const taskSchema = taskLineSchema.extend({
  instructions: z.string(),
  steps: z.array(stepSchema),
  note: z.string(),
  doneBy: z.string().nullable(),
  template: named,
  /** The schedule that made it, in words; null when made by hand. */
  schedule: z.object({ id, phrase: z.string(), nominalOn: isoDate }).nullable(),
  series: z.object({
    lastEight: z.array(pastTaskSchema),
    /** All of the series so far, and its first day. */
    count: z.number().int(),
    since: isoDate.nullable(),
    /** Notes of earlier ones, newest first. */
    notes: z.array(z.object({ taskId: id, on: isoDate, by: z.string().nullable(), note: z.string() })),
    next: z.object({ on: isoDate, taskId: id.nullable(), who: z.string().nullable() }).nullable(),
  }),
  mayWork: z.boolean(),
  /** The change that finished it, for as long as that can be undone. */
  finishedBy: id.nullable(),
});
export type Task = z.infer<typeof taskSchema>;

/** A date that a rule gives, not made yet. */
export const projectedLineSchema = z.object({
  scheduleId: id,
  title: z.string(),
  client: named.nullable(),
  asset: named.nullable(),
  on: isoDate,
  dueOn: isoDate,
  startTime: isoTime.nullable(),
  dueTime: isoTime.nullable(),
  estimateMinutes: z.number().int(),
});
export type ProjectedLine = z.infer<typeof projectedLineSchema>;

export const daySheetSchema = z.object({
  person: named.extend({ role: z.string(), capacityMinutes: z.number().int() }),
  date: isoDate,
  late: z.array(taskLineSchema),
  thisDay: z.array(taskLineSchema),
  coming: z.array(taskLineSchema),
  projected: z.array(projectedLineSchema),
});
export type DaySheet = z.infer<typeof daySheetSchema>;

export const tidelineSchema = z.object({
  from: isoDate,
  to: isoDate,
  /** The last day whose tasks are made. */
  horizon: isoDate,
  late: z.number().int(),
  /** What the people in scope can do on a working day, in minutes. */
  capacityMinutes: z.number().int(),
  scope: z.string(),
  days: z.array(
    z.object({
      date: isoDate,
      done: z.number().int(),
      open: z.number().int(),
      projected: z.number().int(),
      tasks: z.number().int(),
      isOff: z.boolean(),
      holiday: z.string().nullable(),
    }),
  ),
});
export type Tideline = z.infer<typeof tidelineSchema>;

export const MAX_NOTE = 5000;
const saved = z.object({ task: taskSchema, changeId: id.nullable() });

export const taskEndpoints = {
  daySheet: endpoint({
    method: 'GET',
    path: '/people/:personId/day-sheet',
    query: z.object({ date: isoDate.optional() }),
    answer: daySheetSchema,
  }),
  tideline: endpoint({
    method: 'GET',
    path: '/tideline',
    query: z.object({ person: id.optional() }),
    answer: tidelineSchema,
  }),
  one: endpoint({ method: 'GET', path: '/tasks/:taskId', answer: taskSchema }),
  start: endpoint({ method: 'POST', path: '/tasks/:taskId/start', answer: saved }),
  claim: endpoint({ method: 'POST', path: '/tasks/:taskId/claim', answer: saved }),
  finish: endpoint({ method: 'POST', path: '/tasks/:taskId/finish', answer: saved }),
  tick: endpoint({
    method: 'PUT',
    path: '/tasks/:taskId/ticks',
    body: z.object({ key: z.string().max(40), ticked: z.boolean() }),
    answer: saved,
  }),
  note: endpoint({
    method: 'PUT',
    path: '/tasks/:taskId/note',
    /** `was` is the note as the writer last saw it, so that nobody's words are written over unseen. */
    body: z.object({ note: prose('A note', MAX_NOTE), was: z.string() }),
    answer: saved,
  }),
  undo: endpoint({ method: 'POST', path: '/changes/:changeId/undo', answer: z.object({ said: z.string() }) }),
};
