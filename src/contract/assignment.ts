import { z } from 'zod';
import {
  type AssignmentRule,
  COVERS,
  type Colleague,
  type DefaultRule,
  type Group,
  HALVES,
  LEAVE_COVERS,
  type LeaveCover,
  listedTwice,
  MOST_LISTED,
  TURN_COVERS,
  type TurnLength,
  type UnnamedGroup,
} from '../core/index.ts';
import { id, isoDate, line, weekday } from './fields.ts';
import { patternShiftSchema, shiftChangeSchema } from './shifts.ts';

const MOST_IN_ROSTER = 60;
const MOST_ROSTERS = 100;
const MOST_SWAPS = 300;

const unlike = (values: readonly unknown[]) => new Set(values).size === values.length;

const EVERYONE = z.object({ of: z.literal('everyone') });
const OF_ROLE = z.object({ of: z.literal('role'), role: line('The role', 60), onShift: z.literal(true).optional() });
const OF_TEAM = z.object({ of: z.literal('team'), team: line('The team', 60) });

export const groupSchema: z.ZodType<Group, Group> = z.discriminatedUnion('of', [
  z.object({
    of: z.literal('people'),
    ids: z
      .array(id)
      .min(1, 'Name one person at least.')
      .max(MOST_IN_ROSTER, `${MOST_IN_ROSTER} people at most: for more, take a role or a team.`)
      .refine(unlike, 'Somebody stands there twice.'),
  }),
  EVERYONE,
  OF_ROLE,
  OF_TEAM,
]);

/** The same without people by name. */
export const unnamedGroupSchema: z.ZodType<UnnamedGroup, UnnamedGroup> = z.discriminatedUnion('of', [
  EVERYONE,
  OF_ROLE,
  OF_TEAM,
]);

const turnLengthSchema: z.ZodType<TurnLength, TurnLength> = z.discriminatedUnion('per', [
  z.object({ per: z.literal('occurrence'), skipped: z.literal('passes on').optional() }),
  z.object({
    per: z.literal('week'),
    on: weekday,
  }),
  z.object({ per: z.literal('month') }),
]);

const turnsSchema = z.object({
  length: turnLengthSchema,
  rosters: z
    .array(
      z.object({
        from: isoDate,
        people: z
          .array(id)
          .min(1, 'Name one person at least.')
          .max(MOST_IN_ROSTER, `A roster has ${MOST_IN_ROSTER} places at most.`),
      }),
    )
    .min(1, 'Turns need a roster.')
    .max(MOST_ROSTERS, `The roster can change ${MOST_ROSTERS} times at most.`)
    .refine((rosters) => unlike(rosters.map(({ from }) => from)), 'Two rosters begin on the same day.'),
  swaps: z
    .array(
      z
        .object({ one: isoDate, other: isoDate })
        .refine(({ one, other }) => one !== other, 'A turn is swapped with another one: choose a second date.'),
    )
    .max(MOST_SWAPS, `${MOST_SWAPS} swaps at most.`),
});

const listSchema = z
  .array(
    z
      .object({ from: isoDate, to: isoDate, personId: id })
      .refine(({ from, to }) => from <= to, 'A line of the list ends before it begins.'),
  )
  .min(1, 'A list needs one line at least.')
  .max(MOST_LISTED, `A list has ${MOST_LISTED} lines at most.`)
  .refine((list) => list.every(({ from }, i) => i === 0 || (list[i - 1]?.from ?? '') <= from), {
    error: 'The lines of a list stand in the order of their days.',
    abort: true,
  })
  .superRefine((list, context) => {
    const twice = listedTwice(list);
    if (twice) context.addIssue({ code: 'custom', message: `${twice[1].from} stands on the list twice.` });
  });

const cover = z.enum(COVERS);

const coverChoice = z.union([z.enum(LEAVE_COVERS), z.object({ personId: id })]);
const turnCoverChoice = z.union([z.enum(TURN_COVERS), z.object({ personId: id })]);
/** Who takes over while somebody is away, instead of as the work itself says. */
export const leaveCoverSchema: z.ZodType<LeaveCover, LeaveCover> = z.object({
  turns: turnCoverChoice.nullable(),
  name: coverChoice
    .refine((choice) => choice !== 'next', 'Of what somebody has by name there is no next one.')
    .nullable(),
});
const v = z.literal(1);

/** What a schedule and a template can have alike. */
const ALIKE = [
  z.object({ v, kind: z.literal('nobody') }),
  z.object({ v, kind: z.literal('person'), personId: id, daysOffToo: z.boolean(), cover }),
  z.object({ v, kind: z.literal('usualPerson'), otherwiseId: id.nullable(), daysOffToo: z.boolean(), cover }),
  z.object({ v, kind: z.literal('client') }),
] as const;

export const assignmentRuleSchema: z.ZodType<AssignmentRule, AssignmentRule> = z.discriminatedUnion('kind', [
  ...ALIKE,
  z.object({ v, kind: z.literal('anyOf'), group: groupSchema }),
  z.object({ v, kind: z.literal('eachOf'), group: groupSchema, daysOffToo: z.boolean() }),
  z.object({ v, kind: z.literal('inTurn'), turns: turnsSchema, cover }),
  z.object({ v, kind: z.literal('listed'), list: listSchema, goesOn: turnsSchema.nullable(), cover }),
  z.object({ v, kind: z.literal('leastToDo'), group: groupSchema }),
]);

/** Who does the work of a template where its schedule does not say otherwise. */
export const defaultRuleSchema: z.ZodType<DefaultRule, DefaultRule> = z.discriminatedUnion('kind', [
  ...ALIKE,
  z.object({ v, kind: z.literal('anyOf'), group: unnamedGroupSchema }),
  z.object({ v, kind: z.literal('leastToDo'), group: unnamedGroupSchema }),
  z.object({ v, kind: z.literal('eachOf'), group: unnamedGroupSchema, daysOffToo: z.boolean() }),
]);

/** Somebody who may be given work, with all that tells whether they can have it on a day. */
export const colleagueSchema: z.ZodType<Colleague, Colleague> = z.object({
  id,
  roles: z.array(z.string()),
  team: z.string().nullable(),
  weeks: z.array(z.array(z.number().int())),
  weeksFrom: isoDate,
  shifts: z.array(patternShiftSchema),
  shiftChanges: z.array(shiftChangeSchema),
  worksFrom: isoDate.nullable(),
  worksUntil: isoDate.nullable(),
  leave: z.array(
    z.object({ from: isoDate, to: isoDate, half: z.enum(HALVES).nullable(), cover: leaveCoverSchema.nullish() }),
  ),
  tickets: z.array(z.object({ name: z.string(), until: isoDate.nullable() })),
  deputyId: id.nullable(),
});
