import { z } from 'zod';
import { ACCESS_LEVELS } from '../core/index.ts';
import { askingSchema } from './asking.ts';
import { outcomeSchema } from './calls.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, emailField, id, isoDate, line, linkToken, named } from './fields.ts';
import { workspacePaths } from './paths.ts';
import { ownFieldSchema, ownWaysSchema, phraseHabitsSchema, seasonsSchema, waysSchema } from './settings.ts';
import { categorySchema } from './templates.ts';
import { visitRulesSchema } from './visits.ts';

export const personSchema = named.extend({
  /** What they are here; the first leads. */
  roles: z.array(z.string()),
  team: z.string().nullable(),
  access: z.enum(ACCESS_LEVELS),
  /** Their first and their last day here; null where there is no such end. */
  worksFrom: isoDate.nullable(),
  worksUntil: isoDate.nullable(),
});
export type Person = z.infer<typeof personSchema>;

export const calendarSchema = z.object({
  workingWeekdays: z.array(z.number().int()),
  holidays: z.array(z.object({ date: isoDate, name: z.string() })),
});

export const workspaceSchema = z.object({
  id,
  name: z.string(),
  zone: z.string(),
  /** Civil now in the workspace's zone. */
  now: civilMoment,
  /** True when the server's clock stands still at `now` (JOLLY_NOW). */
  clockStands: z.boolean(),
  horizonDays: z.number().int(),
  makeTime: z.string(),
  /** The month in which the financial year begins, 1–12. */
  yearStarts: z.number().int(),
  /** How people here speak, where that is settled. */
  phraseHabits: phraseHabitsSchema,
  /** Parts of the year that have a name here. */
  seasons: seasonsSchema,
  /** How dates and times are seen here, and what whoever asks has chosen for their own eyes. */
  ways: waysSchema,
  myWays: ownWaysSchema,
  calendar: calendarSchema,
  categories: z.array(categorySchema),
  /** Types of work that a template may be of. */
  workTypes: z.array(z.string()),
  /** How visits are announced. */
  visits: visitRulesSchema,
  /** How clients are asked to do what is theirs. */
  asking: askingSchema,
  /** How a call can end. */
  outcomes: z.array(outcomeSchema),
  /** Whether whoever asks rings by a quota today. */
  rings: z.boolean(),
  /** What is kept of clients and of assets besides what everybody keeps. */
  clientFields: z.array(ownFieldSchema),
  assetFields: z.array(ownFieldSchema),
  /** Minutes usually worked on each weekday, Monday first. */
  weekMinutes: z.array(z.number().int()),
  /** Reasons for skipping that are offered. */
  skipReasons: z.array(z.string()),
  /** What people may be here, and the teams they may be in. */
  roles: z.array(z.string()),
  teams: z.array(z.string()),
  /** Qualifications that people may hold and work may ask for. */
  tickets: z.array(z.string()),
  people: z.array(personSchema),
  /** Told to managers: what keeps the server from working as it should. */
  trouble: z.string().nullable(),
});
export type Workspace = z.infer<typeof workspaceSchema>;

/** What may be known before anyone has signed in. */
export const welcomeSchema = z.object({
  name: z.string(),
  tagline: z.string(),
  now: civilMoment,
  calendar: calendarSchema,
  /** The people one may step in as; null when no demo data is loaded. */
  demoPeople: z.array(named.extend({ role: z.string(), saying: z.string() })).nullable(),
});
export type Welcome = z.infer<typeof welcomeSchema>;

/** Somewhere this account is signed in. */
const accountSessionSchema = z.object({
  id: z.string(),
  begunAt: civilMoment,
  /** The browser, as it calls itself. */
  agent: z.string(),
  isThis: z.boolean(),
});
export type AccountSession = z.infer<typeof accountSessionSchema>;

/** The shortest password that is taken: what is long need not be odd (NIST SP 800-63B, section 5.1.1.2). */
export const MIN_PASSWORD = 10;

export const sessionSchema = z.object({ person: personSchema.nullable() });
export type Session = z.infer<typeof sessionSchema>;

export const workspaceEndpoints = {
  welcome: endpoint(workspacePaths.welcome, { answer: welcomeSchema }),
  session: endpoint(workspacePaths.session, { answer: sessionSchema }),
  signIn: endpoint(workspacePaths.signIn, {
    body: z.object({
      email: z.string().trim().min(1, 'Your e-mail address is missing.').max(200),
      password: z.string().min(1, 'Your password is missing.').max(200),
      /** Whether it lasts when the browser is closed. */
      stay: z.boolean().default(true),
    }),
    answer: sessionSchema,
    maxBytes: 10_000,
  }),
  stepIn: endpoint(workspacePaths.stepIn, { body: z.object({ personId: id }), answer: sessionSchema }),
  signOut: endpoint(workspacePaths.signOut, { answer: sessionSchema }),
  sessions: endpoint(workspacePaths.sessions, {
    answer: z.object({ email: z.string(), sessions: z.array(accountSessionSchema) }),
  }),
  /** Ends one session of the account, or all but the one that asks. */
  endSessions: endpoint(workspacePaths.endSessions, {
    body: z.object({ only: z.string().max(64).nullable() }),
    answer: z.object({ ended: z.number().int() }),
  }),
  /** A new password; all other sessions of the account end. */
  password: endpoint(workspacePaths.password, {
    body: z.object({
      current: z.string().min(1, 'Your present password is missing.').max(200),
      next: z
        .string()
        .min(MIN_PASSWORD, `A password has ${MIN_PASSWORD} characters or more.`)
        .max(200, 'A password has 200 characters at most.'),
    }),
    answer: z.object({ ended: z.number().int() }),
    maxBytes: 10_000,
  }),
  /** How whoever is signed in likes to see dates and times. */
  myWays: endpoint(workspacePaths.myWays, { body: ownWaysSchema, answer: ownWaysSchema }),
  /** A link to another address; until it is opened all stays as it is. */
  askForAddress: endpoint(workspacePaths.askForAddress, {
    body: z.object({
      email: emailField,
      password: z.string().min(1, 'Your present password is missing.').max(200),
    }),
    answer: z.object({ said: z.string() }),
    maxBytes: 10_000,
  }),
  confirmAddress: endpoint(workspacePaths.confirmAddress, {
    body: z.object({ token: linkToken }),
    answer: z.object({ email: z.string() }),
    maxBytes: 10_000,
  }),
  /** The workspaces of this account, each by its person there. */
  workspaces: endpoint(workspacePaths.workspaces, { answer: z.object({ workspaces: z.array(named) }) }),
  changeWorkspace: endpoint(workspacePaths.changeWorkspace, {
    body: z.object({ personId: id }),
    answer: sessionSchema,
  }),
  workspace: endpoint(workspacePaths.workspace, { answer: workspaceSchema }),
  /** What moves of it: asked for again and again, and small. */
  clock: endpoint(workspacePaths.clock, {
    answer: workspaceSchema.pick({ now: true, clockStands: true, trouble: true }),
  }),
  /** The lists that a workspace keeps; a name that is in use can't leave them. */
  lists: endpoint(workspacePaths.lists, {
    body: z.object({
      categories: z
        .array(categorySchema.extend({ name: line('The category', 40) }))
        .max(40, 'Forty categories at most.'),
      workTypes: z.array(line('The type of work', 40)).max(40, 'Forty types of work at most.'),
    }),
    answer: workspaceSchema,
  }),
};
