import { z } from 'zod';
import {
  ACCESS_LEVELS,
  DAYS_A_WEEK,
  faultOfDay,
  faultOfPattern,
  MOST_MINUTES_A_DAY,
  type ShiftFault,
  weeksOfShifts,
} from '../core/index.ts';
import { colleagueSchema } from './assignment.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, emailField, id, isoDate, line, linkToken } from './fields.ts';
import { impactSchema } from './impact.ts';
import { leaveImpactSchema } from './leave.ts';
import { peoplePaths } from './paths.ts';
import { patternSchema, shiftChangesSchema } from './shifts.ts';
import { MOST_TICKETS, ticketName } from './work.ts';
import { MIN_PASSWORD, sessionSchema } from './workspace.ts';

/** The most people of one workspace, those who have left included. */
export const MOST_PEOPLE = 1_000;

export const newPassword = z
  .string()
  .min(MIN_PASSWORD, `A password has ${MIN_PASSWORD} characters or more.`)
  .max(200, 'A password has 200 characters at most.');

const minutes = z
  .number({ error: 'Say how long.' })
  .int('Whole minutes only.')
  .min(0, 'Not below nothing.')
  .max(MOST_MINUTES_A_DAY, 'A day has 24 hours.');

/** What is written of a person. */
export const personFieldsSchema = z.object({
  name: line('The name', 80),
  email: emailField.nullable(),
  telephone: z.string().trim().max(60, 'A telephone number has 60 characters at most.'),
  roles: z
    .array(line('The role', 60))
    .max(8, 'Eight roles at most.')
    .refine((roles) => new Set(roles).size === roles.length, 'A role stands there twice.'),
  team: line('The team', 60).nullable(),
  access: z.enum(ACCESS_LEVELS),
  weeks: z.array(z.array(minutes).length(DAYS_A_WEEK, 'A week has seven days.')).min(1).max(2, 'Two weeks at most.'),
  weeksFrom: isoDate,
  /** When those hours lie: where that is said, the minutes of the weeks follow from it. */
  shifts: patternSchema,
  /** What they work instead on single days. */
  shiftChanges: shiftChangesSchema,
  worksFrom: isoDate.nullable(),
  worksUntil: isoDate.nullable(),
  /** Whoever takes over for them while they are away. */
  deputyId: id.nullable(),
  /** Qualifications that they hold, each up to its last day; null where it has none. */
  tickets: z
    .array(z.object({ name: ticketName, until: isoDate.nullable() }))
    .max(MOST_TICKETS, `${MOST_TICKETS} tickets at most.`)
    .refine((held) => new Set(held.map(({ name }) => name)).size === held.length, 'A ticket stands there twice.'),
});
/** The same, held against each other. */
export const personInputSchema = personFieldsSchema.superRefine((person, context) => {
  const { worksFrom, worksUntil, weeks, shifts, shiftChanges, roles } = person;
  const wrong = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message });
  if (worksFrom !== null && worksUntil !== null && worksUntil < worksFrom)
    wrong(['worksUntil'], 'The last day lies before the first.');
  const fault = faultOfPattern(shifts, weeks.length);
  if (fault) wrong(['shifts', fault.at], SHIFT_FAULTS[fault.because]);
  for (const [i, { shifts: ofDay }] of shiftChanges.entries()) {
    const faultThen = faultOfDay(ofDay);
    if (faultThen) wrong(['shiftChanges', i], SHIFT_FAULTS[faultThen.because]);
  }
  for (const [path, named] of [
    ['shifts', shifts],
    ['shiftChanges', shiftChanges.flatMap(({ shifts: ofDay }) => ofDay)],
  ] as const) {
    const strange = named.find(({ role }) => role !== null && !roles.includes(role));
    if (strange) wrong([path], `“${strange.role}” is no role of theirs: choose another for that shift.`);
  }
  const said = fault ? null : weeksOfShifts(shifts, weeks.length);
  if (shifts.length > 0 && said !== null && said.some((week, i) => week.some((of, day) => of !== weeks[i]?.[day])))
    wrong(['weeks'], 'The hours of a week follow from its shifts: change those.');
  const late = shifts.findIndex(({ week }) => week >= weeks.length);
  if (late >= 0) wrong(['shifts', late], 'That week does not take turns with the other.');
});

const SHIFT_FAULTS: Readonly<Record<ShiftFault['because'], string>> = {
  break: 'The break is as long as the shift, or longer.',
  'two at once': 'Two shifts lie at the same time.',
};

export type PersonInput = z.infer<typeof personInputSchema>;

const weekLoad = z.object({
  /** Minutes of work that is made and due in that week, and of what somebody can do in it. */
  minutes: z.number().int(),
  capacity: z.number().int(),
});

export const memberSchema = personFieldsSchema.extend({
  id,
  version: z.number().int(),
  /** Whether they can sign in, were asked to by mail, or neither. */
  signsIn: z.enum(['yes', 'invited', 'invitation ended', 'no']),
  /** The last moment that the invitation works. */
  invitedUntil: civilMoment.nullable(),
  /** This week and the next. */
  loads: z.array(weekLoad),
  /** The next of their work that is their own turn, of what is made; the place in the order from 1. */
  nextTurn: z.object({ on: isoDate, work: z.string(), place: z.number().int() }).nullable(),
});
export type Member = z.infer<typeof memberSchema>;

const counts = z.object({
  tasks: z.number().int(),
  underWay: z.number().int(),
  schedules: z.number().int(),
  templates: z.number().int(),
  signOffs: z.number().int(),
});

/** Everything of somebody's that somebody else has to take over: how much, and the first of each by name. */
const heldSchema = z.object({
  counts,
  tasks: z.array(z.object({ id, title: z.string(), on: isoDate, about: z.string().nullable() })),
  schedules: z.array(z.object({ id, name: z.string(), about: z.string().nullable() })),
  templates: z.array(z.object({ id, name: z.string() })),
  signOffs: z.array(z.object({ id, name: z.string() })),
});
export type Held = z.infer<typeof heldSchema>;

/** Who takes over what; null is nobody yet. */
export const handOverSchema = z.object({
  version: z.number().int(),
  /** The last day here; null where somebody stays and only gives away. */
  lastDay: isoDate.nullable(),
  tasksTo: id.nullable(),
  schedulesTo: id.nullable(),
  templatesTo: id.nullable(),
  signOffsTo: id.nullable(),
});
export type HandOver = z.infer<typeof handOverSchema>;

const done = z.object({ member: memberSchema, changeId: id.nullable() });

export const peopleEndpoints = {
  list: endpoint(peoplePaths.list, {
    answer: z.object({ members: z.array(memberSchema), weeks: z.array(isoDate) }),
  }),
  /** What tells who can have work on a day, and what everybody has to do already, by the weeks of their Mondays. */
  colleagues: endpoint(peoplePaths.colleagues, {
    query: z.object({ schedule: id.optional() }),
    answer: z.object({
      colleagues: z.array(colleagueSchema),
      /** `own` are the minutes among them of the schedule that was asked for. */
      weeks: z.array(z.object({ personId: id, monday: isoDate, minutes: z.number().int(), own: z.number().int() })),
    }),
  }),
  add: endpoint(peoplePaths.add, { body: personInputSchema.extend({ invite: z.boolean() }), answer: done }),
  change: endpoint(peoplePaths.change, {
    body: personInputSchema.extend({ version: z.number().int() }),
    answer: done,
  }),
  /** What other hours on single days would do to the work of those days. */
  impactOfChanging: endpoint(peoplePaths.impactOfChanging, {
    heavy: true,
    body: personInputSchema.extend({ version: z.number().int() }),
    answer: leaveImpactSchema,
  }),
  /** By mail, with a link; one sent before works no longer. */
  invite: endpoint(peoplePaths.invite, { answer: memberSchema }),
  withdraw: endpoint(peoplePaths.withdraw, { answer: memberSchema }),
  held: endpoint(peoplePaths.held, { answer: heldSchema }),
  handOver: endpoint(peoplePaths.handOver, { body: handOverSchema, answer: done, heavy: true }),
  impactOfHandOver: endpoint(peoplePaths.impactOfHandOver, { body: handOverSchema, answer: impactSchema, heavy: true }),
  /** What an invitation is to; for whoever has its link. */
  lookAtInvitation: endpoint(peoplePaths.lookAtInvitation, {
    body: z.object({ token: linkToken }),
    answer: z.object({
      workspace: z.string(),
      name: z.string(),
      email: z.string(),
      /** Whether that address signs in here already: then its password is asked for, and none is made. */
      hasAccount: z.boolean(),
    }),
    maxBytes: 10_000,
  }),
  accept: endpoint(peoplePaths.accept, {
    body: z.object({ token: linkToken, password: z.string().min(1, 'The password is missing.').max(200) }),
    answer: sessionSchema,
    maxBytes: 10_000,
  }),
  /** Says the same whether there is such an account or not. */
  forgotten: endpoint(peoplePaths.forgotten, {
    body: z.object({ email: emailField }),
    answer: z.object({ said: z.string() }),
    maxBytes: 10_000,
  }),
  lookAtReset: endpoint(peoplePaths.lookAtReset, {
    body: z.object({ token: linkToken }),
    answer: z.object({ email: z.string() }),
    maxBytes: 10_000,
  }),
  reset: endpoint(peoplePaths.reset, {
    body: z.object({ token: linkToken, password: newPassword }),
    answer: sessionSchema,
    maxBytes: 10_000,
  }),
};
