import { z } from 'zod';
import { TASK_STATES } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, isoTime, line, named, prose } from './fields.ts';
import { deletedSchema } from './history.ts';
import { impactSchema } from './impact.ts';
import { taskPaths } from './paths.ts';
import { pastTaskSchema } from './schedules.ts';
import {
  answerInputSchema,
  answerSchema,
  checkLineSchema,
  contentFields,
  demandSchema,
  estimate,
  fileSchema,
  linkSchema,
  offsetSchema,
  PRIORITIES,
  signOffSchema,
} from './work.ts';

/** A task as one line of a list. */
export const taskLineSchema = z.object({
  id,
  version: z.number().int(),
  title: z.string(),
  category: z.string().nullable(),
  client: named.nullable(),
  asset: named.nullable(),
  assignee: named.nullable(),
  /** Of whom any one may take it, in words; null where it is no such task. */
  offeredTo: z.string().nullable(),
  /** Whether it is for its client to do, who is asked by mail. */
  isForClient: z.boolean(),
  state: z.enum([...TASK_STATES, 'coming']),
  late: z.boolean(),
  daysLate: z.number().int(),
  /** What holds it up, and the day on which it can go on; null where nothing does by now. */
  hold: z.object({ reason: z.string(), until: isoDate }).nullable(),
  heldUp: z.boolean(),
  on: isoDate,
  startsOn: isoDate,
  dueOn: isoDate,
  startTime: isoTime.nullable(),
  dueTime: isoTime.nullable(),
  /** IANA zone in which the times are meant; null for the workspace's. */
  zone: z.string().nullable(),
  estimateMinutes: z.number().int(),
  priority: z.enum(PRIORITIES),
  stepsDone: z.number().int(),
  stepsTotal: z.number().int(),
  /** What is missing before it can be finished, besides plain ticks: "the photo or file for Hose". */
  proofMissing: z.array(z.string()),
  /** Reading the tag of its asset is what starts it. */
  startsByTag: z.boolean(),
  /** Who is to sign it off once it is finished, in words; null when nobody is. */
  signsOff: z.string().nullable(),
  /** How many tasks its set has, when there is more than itself. */
  setSize: z.number().int(),
  startedAt: civilMoment.nullable(),
  /** When whoever has it was reminded of it last. */
  nudgedAt: civilMoment.nullable(),
  /** When the work was finished, also while it waits to be checked. */
  doneAt: civilMoment.nullable(),
});
export type TaskLine = z.infer<typeof taskLineSchema>;

/** A check line of a task, with its tick. */
const tickedLineSchema = checkLineSchema.extend({
  tickedAt: civilMoment.nullable(),
  tickedBy: z.string().nullable(),
});
export type TickedLine = z.infer<typeof tickedLineSchema>;

/** An earlier task of the series, with what was kept of it. */
const earlierSchema = z.object({
  taskId: id,
  on: isoDate,
  by: z.string().nullable(),
  note: z.string(),
  isPinned: z.boolean(),
  files: z.array(fileSchema),
  /** Numeric answers by the key of their demand. */
  readings: z.record(z.string(), z.number()),
});
export type Earlier = z.infer<typeof earlierSchema>;

/** A task with all there is to know when doing it. */
export const taskSchema = taskLineSchema.extend({
  instructions: z.string(),
  /** Notes of the step it was made from, and what was said when it was started by hand. */
  brief: z.string(),
  links: z.array(linkSchema),
  files: z.array(fileSchema),
  /** Files of its template, as they are now. */
  templateFiles: z.array(fileSchema),
  demands: z.array(demandSchema).readonly(),
  steps: z.array(tickedLineSchema),
  numbered: z.boolean(),
  finishWithLast: z.boolean(),
  workType: z.string().nullable(),
  signOff: signOffSchema.nullable(),
  /** By the key of their demand. */
  answers: z.record(z.string(), answerSchema),
  /** What stands on the asset's tag; null where it has none. */
  assetTag: z.string().nullable(),
  note: z.string(),
  notePinned: z.boolean(),
  doneBy: z.string().nullable(),
  signed: z.object({ at: civilMoment, by: z.string().nullable() }).nullable(),
  /** What holds it up, who said so and when. */
  hold: taskLineSchema.shape.hold.unwrap().extend({ at: civilMoment, by: z.string().nullable() }).nullable(),
  /** When whoever has it was reminded of it last, and by whom. */
  nudged: z.object({ at: civilMoment, by: z.string().nullable() }).nullable(),
  /** The last time it was sent back, and why. */
  sentBack: z.object({ at: civilMoment, by: z.string().nullable(), reason: z.string() }).nullable(),
  /** Null for a task that was captured. */
  template: named.extend({ changedSince: isoDate.nullable(), isArchived: z.boolean() }).nullable(),
  /** The schedule that made it, in words; null when made by hand. */
  schedule: z.object({ id, phrase: z.string(), nominalOn: isoDate }).nullable(),
  /** All tasks of its set, in the order of their days; only itself where it stands alone. */
  set: z.array(
    z.object({
      taskId: id,
      title: z.string(),
      on: isoDate,
      dueTime: isoTime.nullable(),
      state: taskLineSchema.shape.state,
      late: z.boolean(),
      heldUp: z.boolean(),
      who: z.string().nullable(),
      estimateMinutes: z.number().int(),
    }),
  ),
  series: z.object({
    lastEight: z.array(pastTaskSchema),
    /** All of the series so far, and its first day. */
    count: z.number().int(),
    since: isoDate.nullable(),
    /** Earlier ones that have a note, files or readings, newest first. */
    earlier: z.array(earlierSchema),
    next: z
      .object({
        on: isoDate,
        taskId: id.nullable(),
        who: z.string().nullable(),
        /** Its day is told from when this one is done: as if that were today. */
        isIfDoneToday: z.boolean(),
      })
      .nullable(),
  }),
  /** Why its schedule gave it to whoever has it, in words; null where no schedule did. */
  whyWho: z.string().nullable(),
  /** Qualifications that it asks for, and the first of them that whoever has it does not hold on its day. */
  tickets: z.array(z.string()).readonly(),
  lackedTicket: z.string().nullable(),
  mayWork: z.boolean(),
  /** Whether whoever looks finished it today, and may still add a note and pictures. */
  mayAddTo: z.boolean(),
  /** Whether this person may take it, or give back what they have taken. */
  mayClaim: z.boolean(),
  mayGiveBack: z.boolean(),
  /** Whether this person may put it to another day, give it away and change its priority. */
  mayPlan: z.boolean(),
  maySign: z.boolean(),
  /** Whether this person may have its client asked by mail. */
  mayAsk: z.boolean(),
  /** Whether this person may say what holds it up, and remind whoever has it. */
  mayHold: z.boolean(),
  mayNudge: z.boolean(),
  /** Whether whoever ends it now chooses the date of the next one. */
  mayChooseNext: z.boolean(),
  /** The change that finished or signed it, for as long as that can be undone. */
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

/** What may be changed of one task without its template or schedule. */
export const taskEditSchema = z
  .object({
    title: line('The title', 200),
    instructions: contentFields.instructions,
    workOn: isoDate,
    dueOn: isoDate,
    startTime: isoTime.nullable(),
    dueTime: isoTime.nullable(),
    assigneeId: id.nullable(),
    estimateMinutes: estimate,
    priority: z.enum(PRIORITIES),
  })
  .refine(({ workOn, dueOn }) => workOn <= dueOn, { path: ['dueOn'], error: 'It is due before its day.' });
export type TaskEdit = z.infer<typeof taskEditSchema>;

/** A task made from one line. */
const captureSchema = z.object({
  title: line('What is to be done', 200),
  on: isoDate,
  dueOn: isoDate,
  startTime: isoTime.nullable(),
  dueTime: isoTime.nullable(),
  assigneeId: id.nullable(),
  clientId: id.nullable(),
  assetId: id.nullable(),
  estimateMinutes: estimate,
});
export type CaptureInput = z.infer<typeof captureSchema>;

/** Fields of a task that a template can take over. */
export const INTO_TEMPLATE = ['instructions', 'estimateMinutes', 'priority'] as const;

export const daySheetSchema = z.object({
  person: named.extend({
    roles: z.array(z.string()),
    capacityMinutes: z.number().int(),
    /** When they are at work on that day, where their hours say so. */
    shifts: z.array(z.object({ from: isoTime, to: isoTime })),
    /** Whether their hours say so on any day. */
    hasShifts: z.boolean(),
  }),
  date: isoDate,
  late: z.array(taskLineSchema),
  thisDay: z.array(taskLineSchema),
  coming: z.array(taskLineSchema),
  /** On today's sheet what was done on days before, for as long as the workspace keeps it in sight: the latest, and how many in all. */
  doneBefore: z.object({ tasks: z.array(taskLineSchema), count: z.number().int() }),
  /** Finished by others, waiting for this person to sign. */
  toCheck: z.array(taskLineSchema),
  /** What nobody has yet and this person may claim, on one's own sheet: the most urgent, and how many there are in all. */
  /** What any one of several may take, this person among them. */
  offered: z.object({ tasks: z.array(taskLineSchema), count: z.number().int() }),
  unassigned: z.object({ tasks: z.array(taskLineSchema), count: z.number().int() }),
  projected: z.array(projectedLineSchema),
  /** Deleted from this day, by whoever, newest first; told to managers, who can bring them back. */
  deleted: z.array(deletedSchema),
});
export type DaySheet = z.infer<typeof daySheetSchema>;

/** Whose day it is, or what it is about: one of them. */
const togetherOfSchema = z.object({
  team: z.string().max(60).optional(),
  role: z.string().max(60).optional(),
  /** Everyone who is on shift on that day, or clocked on today. */
  shift: z.literal('on').optional(),
  asset: id.optional(),
  /** A site, and all that stands there. */
  site: id.optional(),
});
export type TogetherOf = z.infer<typeof togetherOfSchema>;
export const TOGETHER_OF = togetherOfSchema.keyof().options;

const togetherSchema = z.object({
  name: z.string(),
  date: isoDate,
  /** Those in it, or whoever has something of it, with what they have of it and what they can do on that day. */
  people: z.array(
    named.extend({
      toDo: z.number().int(),
      done: z.number().int(),
      capacityMinutes: z.number().int(),
      shifts: z.array(z.object({ from: isoTime, to: isoTime })),
    }),
  ),
  late: z.array(taskLineSchema),
  thisDay: z.array(taskLineSchema),
  coming: z.array(taskLineSchema),
  projected: z.array(projectedLineSchema.extend({ who: z.string() })),
  /** Whether there are more than are told. */
  isMore: z.boolean(),
});
export type Together = z.infer<typeof togetherSchema>;

export const tidelineSchema = z.object({
  from: isoDate,
  to: isoDate,
  /** The last day whose tasks are made. */
  horizon: isoDate,
  late: z.number().int(),
  scope: z.string(),
  days: z.array(
    z.object({
      date: isoDate,
      done: z.number().int(),
      open: z.number().int(),
      projected: z.number().int(),
      tasks: z.number().int(),
      /** What the people in scope can do that day, in minutes. */
      capacity: z.number().int(),
      isOff: z.boolean(),
      holiday: z.string().nullable(),
    }),
  ),
});
export type Tideline = z.infer<typeof tidelineSchema>;

export const MAX_NOTE = 5000;
export const tickSchema = z.object({ key: z.string().max(40), ticked: z.boolean() });
/** `was` is the note as the writer last saw it, so that nobody's words are written over unseen. */
export const noteSchema = z.object({ note: prose('A note', MAX_NOTE), was: z.string() });
const saved = z.object({ task: taskSchema, changeId: id.nullable() });

/** The next one of its series may be given another day, this once. */
const finishing = z.object({ nextOn: isoDate.nullable().default(null) });

/** How far an edit of one task goes: only this one, this one and later ones of its series, or all open ones of it. */
export const EDIT_REACHES = ['one', 'later', 'open'] as const;
const wideEdit = taskEditSchema.safeExtend({
  version: z.number().int(),
  reach: z.enum(EDIT_REACHES).default('one'),
});

/** The most stops of a round. */
export const MOST_STOPS = 40;

/** What is done with one task or many at once; what is deleted is gone for good, unless it is undone: no run makes it again. */
const taskDeedSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('give'), personId: id.nullable() }),
  z.object({ kind: z.literal('move'), by: offsetSchema }),
  /** All of them to one day. */
  z.object({ kind: z.literal('moveTo'), on: isoDate }),
  /** Each at its own time of its day, as a round has them. */
  z.object({
    kind: z.literal('times'),
    at: z
      .array(z.object({ id, startTime: isoTime, dueTime: isoTime }))
      .min(1)
      .max(MOST_STOPS, `A round has ${MOST_STOPS} stops at most.`)
      .refine((at) => at.every(({ startTime, dueTime }) => startTime < dueTime), 'A visit ends after it begins.'),
  }),
  z.object({ kind: z.literal('prioritise'), priority: z.enum(PRIORITIES) }),
  /** Those that lack nothing; a note stands on each. */
  z.object({ kind: z.literal('finish'), note: z.string().trim().max(500, '500 characters at most.').default('') }),
  z.object({ kind: z.literal('skip'), reason: line('The reason', 500) }),
  z.object({ kind: z.literal('delete') }),
]);
export type TaskDeed = z.output<typeof taskDeedSchema>;

/** What can't go on for now, why, and when it can: on that day it is back by itself. */
const holdSchema = z.object({ reason: line('The reason', 200), until: isoDate });
export type HoldInput = z.output<typeof holdSchema>;

/** How long somebody is left in peace after a nudge. */
export const NUDGE_AGAIN_MINUTES = 60;
export const MOST_NUDGED = 500;
const nudgeSchema = z.object({
  tasks: z
    .array(id)
    .min(1, 'Choose at least one.')
    .max(MOST_NUDGED, `${MOST_NUDGED} at most.`)
    .refine((ids) => new Set(ids).size === ids.length, 'A task stands there twice.'),
  text: z.string().trim().max(300, '300 characters at most.').default(''),
});
const nudgedSchema = z.object({
  /** Tasks that somebody was reminded of, and how many people that were. */
  nudged: z.number().int(),
  people: z.number().int(),
  /** Those that stay as they are: one's own, nobody's, over or held up, or somebody was reminded within the hour. */
  own: z.number().int(),
  nobodys: z.number().int(),
  over: z.number().int(),
  again: z.number().int(),
});
export type Nudged = z.infer<typeof nudgedSchema>;

/** So many can be chosen and changed at once, and the bytes that as many take. */
export const TASKS_CHOSEN_AT_ONCE = 20_000;
const MOST_DEED_BYTES = 2 * 1024 * 1024;

const tasksDeedSchema = z.object({
  tasks: z
    .array(z.object({ id, version: z.number().int() }))
    .min(1, 'Choose at least one.')
    .max(TASKS_CHOSEN_AT_ONCE, 'Twenty thousand tasks at most.')
    .refine((tasks) => new Set(tasks.map((one) => one.id)).size === tasks.length, 'A task stands there twice.'),
  deed: taskDeedSchema,
  /** A key of the page's own, by which it is told how far it is. */
  follow: id.optional(),
});
export type TasksDeed = z.output<typeof tasksDeedSchema>;

export const taskEndpoints = {
  daySheet: endpoint(taskPaths.daySheet, {
    // Of another day it foresees what no task is made for yet.
    heavy: ({ date }) => date !== undefined,
    query: z.object({ date: isoDate.optional() }),
    answer: daySheetSchema,
  }),
  /** The same of several people, or of one thing whoever works at it. */
  together: endpoint(taskPaths.together, {
    heavy: true,
    query: togetherOfSchema
      .extend({ date: isoDate.optional() })
      .refine((asked) => TOGETHER_OF.filter((of) => asked[of] !== undefined).length === 1, {
        path: ['team'],
        message: 'A team, a role, everyone on shift, an asset or a site: one of them.',
      }),
    answer: togetherSchema,
  }),
  tideline: endpoint(taskPaths.tideline, {
    heavy: true,
    query: z.object({ person: id.optional() }),
    answer: tidelineSchema,
  }),
  one: endpoint(taskPaths.one, { answer: taskSchema }),
  start: endpoint(taskPaths.start, { answer: saved, fromDevice: true }),
  claim: endpoint(taskPaths.claim, { answer: saved }),
  /** What was taken of several is anybody's of them again. */
  giveBack: endpoint(taskPaths.giveBack, { answer: saved }),
  finish: endpoint(taskPaths.finish, { body: finishing, answer: saved, fromDevice: true }),
  /** Of one that is open on the page; of several, or after a look, see `changeSeveral`. */
  skip: endpoint(taskPaths.skip, {
    body: z.object({ reason: line('The reason', 500) }),
    answer: saved,
    fromDevice: true,
  }),
  tick: endpoint(taskPaths.tick, {
    body: tickSchema,
    answer: saved,
    fromDevice: true,
  }),
  note: endpoint(taskPaths.note, {
    body: noteSchema,
    answer: saved,
    fromDevice: true,
  }),
  pin: endpoint(taskPaths.pin, { body: z.object({ pinned: z.boolean() }), answer: saved }),
  answer: endpoint(taskPaths.answer, { body: answerInputSchema, answer: saved, fromDevice: true }),
  sign: endpoint(taskPaths.sign, { body: finishing, answer: saved }),
  sendBack: endpoint(taskPaths.sendBack, { body: z.object({ reason: line('The reason', 500) }), answer: saved }),
  holdUp: endpoint(taskPaths.holdUp, { body: holdSchema, answer: saved }),
  goOn: endpoint(taskPaths.goOn, { answer: saved }),
  /** Reminds those who have them. */
  nudge: endpoint(taskPaths.nudge, { body: nudgeSchema, answer: nudgedSchema }),
  edit: endpoint(taskPaths.edit, { body: wideEdit, answer: saved }),
  /** What an edit that goes further would do. */
  impactOfEdit: endpoint(taskPaths.impactOfEdit, { heavy: true, body: wideEdit, answer: impactSchema }),
  /** The same done with one task or many: saved together, undone together. */
  changeSeveral: endpoint(taskPaths.changeSeveral, {
    heavy: true,
    maxBytes: MOST_DEED_BYTES,
    body: tasksDeedSchema,
    answer: z.object({ changed: z.number().int(), changeId: id.nullable() }),
  }),
  impactOfSeveral: endpoint(taskPaths.impactOfSeveral, {
    heavy: true,
    maxBytes: MOST_DEED_BYTES,
    body: tasksDeedSchema,
    answer: impactSchema,
  }),
  /** Puts fields of a task into its template, so that later ones have them too. */
  intoTemplate: endpoint(taskPaths.intoTemplate, {
    body: z.object({
      fields: z
        .array(z.enum(INTO_TEMPLATE))
        .min(1)
        .max(INTO_TEMPLATE.length)
        .refine((fields) => new Set(fields).size === fields.length, 'A field stands there twice.'),
    }),
    answer: z.object({ templateId: id, changeId: id.nullable() }),
  }),
  capture: endpoint(taskPaths.capture, {
    body: captureSchema,
    answer: z.object({ tasks: z.array(taskLineSchema), changeId: id }),
    fromDevice: true,
  }),
};
