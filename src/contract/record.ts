import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { isSpan, logFilterSchema, SPAN_WORDS } from './logbook.ts';
import { recordPaths } from './paths-later.ts';
import { NONE_OF_THEM } from './task-list.ts';

/** Entries of one record, and pictures in it; what is more is another time. */
export const MOST_RECORDED = 2_000;
export const MOST_RECORD_PICTURES = 1_000;

/** What a record is of: one of these. */
export const RECORD_OF = ['client', 'asset', 'site', 'template', 'schedule'] as const;

export const recordEndpoints = {
  /** What the logbook has of one client, asset, site, template or schedule over a time, on paper: a PDF. */
  period: endpoint(recordPaths.period, {
    heavy: true,
    query: logFilterSchema
      .refine(isSpan, SPAN_WORDS)
      .refine((asked) => RECORD_OF.filter((of) => asked[of] !== undefined && asked[of] !== NONE_OF_THEM).length === 1, {
        message: 'A record is of one client, asset, site, template or schedule: open one in the logbook first.',
      }),
    answer: z.string(),
  }),
  /** The whole chain of one task from its rule to its proof, on paper: a PDF. */
  task: endpoint(recordPaths.task, { heavy: true, answer: z.string() }),
};
