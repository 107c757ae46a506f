import { z } from 'zod';
import { LONGEST_AGO_SECONDS } from './device.ts';
import { endpoint } from './endpoint.ts';
import { id } from './fields.ts';
import { filePaths } from './paths.ts';
import { fileSchema } from './work.ts';

/** Fields sent along with the bytes of a file (multipart/form-data, the bytes under `file`, after these). */
export const uploadFieldsSchema = z.object({
  /** Made by the sender once for each file: sending it again after a failure makes no second one. */
  key: id,
  /** The task that it is for; without it, a template that is being written. */
  taskId: id.optional(),
  demand: z.string().max(40).optional(),
  /** How long ago it was taken, in whole seconds, where a device had to keep it. */
  ago: z.coerce.number().int().min(0).max(LONGEST_AGO_SECONDS).default(0),
});

export const fileEndpoints = {
  upload: endpoint(filePaths.upload, {
    body: uploadFieldsSchema,
    answer: z.object({ file: fileSchema, changeId: id.nullable() }),
  }),
  keep: endpoint(filePaths.keep, { body: z.object({ kept: z.boolean() }), answer: z.object({ file: fileSchema }) }),
  remove: endpoint(filePaths.remove, { answer: z.object({ changeId: id }) }),
};
