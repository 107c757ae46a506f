import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, prose } from './fields.ts';
import { commentPaths } from './paths-later.ts';

export const MAX_COMMENT = 2000;
/** People who may be named in one comment, and comments that are told at once, the newest. */
export const MOST_NAMED = 20;
export const COMMENTS_A_PAGE = 30;

const commentSchema = z.object({
  id,
  at: civilMoment,
  by: z.string(),
  isOwn: z.boolean(),
  text: z.string(),
});
export type Comment = z.infer<typeof commentSchema>;

/** What is said about a task by those who work with it: apart from the note, which is proof. */
export const commentEndpoints = {
  list: endpoint(commentPaths.list, {
    /** Those before one of them, in time. */
    query: z.object({ before: id.optional() }),
    answer: z.object({ comments: z.array(commentSchema), more: z.boolean() }),
  }),
  write: endpoint(commentPaths.write, {
    body: z.object({
      /** Made by the sender for each, so that sending it again says it once. */
      key: id,
      text: prose('A comment', MAX_COMMENT).refine((text) => text.trim() !== '', 'Write something first.'),
      /** Those whom `@name` in the text means: they hear of it. */
      named: z
        .array(id)
        .max(MOST_NAMED, `${MOST_NAMED} people at most.`)
        .refine((ids) => new Set(ids).size === ids.length, 'Somebody stands there twice.')
        .default([]),
    }),
    answer: z.object({ comment: commentSchema }),
  }),
};
export type CommentInput = z.output<typeof commentEndpoints.write.body>;
