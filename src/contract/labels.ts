import { z } from 'zod';
import { LABEL_FORMS, LABEL_SIZES, labelsOfSheet } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { id } from './fields.ts';
import { labelPaths } from './paths.ts';

/** Labels made at once. */
export const MOST_LABELS = 200;

export const labelEndpoints = {
  /** Sheets of labels for assets, each with its tag as text and as a code to be read by a camera: a PDF. */
  pdf: endpoint(labelPaths.pdf, {
    heavy: true,
    query: z
      .object({
        /** Ids, with commas between them. */
        assets: z
          .string()
          .max(40 * MOST_LABELS)
          .refine((ids) => z.array(id).min(1).max(MOST_LABELS).safeParse(ids.split(',')).success, {
            message: `One asset at least, ${MOST_LABELS} at the most.`,
          }),
        size: z.enum(LABEL_SIZES).default('small'),
        /** The place on the first sheet at which they begin. */
        first: z.coerce.number().int().min(1, 'The first place is 1.').default(1),
      })
      .refine(({ size, first }) => first <= labelsOfSheet(LABEL_FORMS[size]), {
        path: ['first'],
        message: 'There is no such place on a sheet.',
      }),
    answer: z.string(),
  }),
};
