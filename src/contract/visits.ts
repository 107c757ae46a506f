import { z } from 'zod';
import { DELIVERY_KINDS, MOST_REMIND, type VisitRules } from '../core/index.ts';
import { isoTime, line, prose } from './fields.ts';

/** The longest notice, and the longest way of a letter, in days. */
export const MOST_NOTICE_DAYS = 366;
export const MOST_ON_ITS_WAY_DAYS = 60;

/** Lines below the name of the workspace at the head of a letter. */
export const MOST_HEAD_LINES = 4;

const unit = z.enum(['day', 'workingDay']);
const days = (what: string, least: number, most: number) =>
  z
    .number({ error: `${what}: say how many days.` })
    .int('Whole days only.')
    .min(least, `${what}: ${least} at least.`)
    .max(most, `${what}: ${most} days at most.`);
const wayName = line('The way a letter goes', 40);

/** How letters go, and which types of work are visits that have to be announced. */
export const visitRulesSchema: z.ZodType<VisitRules, VisitRules> = z
  .object({
    ways: z
      .array(
        z.object({
          name: wayName,
          kind: z.enum(DELIVERY_KINDS),
          onItsWay: z.object({ days: days('On its way', 0, MOST_ON_ITS_WAY_DAYS), unit }),
        }),
      )
      .max(12, 'Twelve ways at most.'),
    terms: z
      .array(
        z.object({
          type: line('The type of work', 40),
          period: z.object({
            ...{ days: days('A notice', 1, MOST_NOTICE_DAYS), unit },
            ...{ countsReceipt: z.boolean(), countsVisit: z.boolean() },
          }),
          ways: z.array(wayName).min(1, 'Say by which way it may go.').max(12),
          window: z
            .object({ from: isoTime, to: isoTime })
            .refine(({ from, to }) => from < to, { path: ['to'], error: 'It ends before it begins.' })
            .optional(),
          remind: days('Reminded', 0, MOST_REMIND).optional(),
        }),
      )
      .max(60, 'Sixty types at most.'),
    letterhead: prose('The head of letters', 300).refine((text) => text.split('\n').length <= MOST_HEAD_LINES, {
      error: `${MOST_HEAD_LINES} lines at most.`,
    }),
    answering: z.union([z.literal(''), line('How they can answer', 200)]),
  })
  .superRefine(({ ways, terms }, context) => {
    const names = ways.map(({ name }) => name.toLowerCase());
    names.forEach((name, i) => {
      if (names.indexOf(name) < i)
        context.addIssue({
          code: 'custom',
          path: ['ways', i, 'name'],
          message: `“${ways[i]?.name}” stands there twice.`,
        });
    });
    terms.forEach(({ type, ways: of }, i) => {
      if (terms.findIndex((other) => other.type === type) < i)
        context.addIssue({ code: 'custom', path: ['terms', i, 'type'], message: `“${type}” stands there twice.` });
      const gone = of.find((name) => !ways.some((way) => way.name === name));
      if (gone !== undefined)
        context.addIssue({ code: 'custom', path: ['terms', i, 'ways'], message: `No letter goes “${gone}” here.` });
    });
  });
