import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { erasingPaths } from './paths-later.ts';

const count = z.number().int();

/** What erasing somebody takes from the record, and what it leaves there without a name. */
const erasingSchema = z.object({
  name: z.string(),
  /** Why it can't be done now, in words. */
  whyNot: z.string().nullable(),
  /** Names and addresses that somebody else here has too: elsewhere they stay. */
  shared: z.array(z.string()),
  contacts: count,
  assets: count,
  notes: count,
  files: count,
  mails: count,
  letters: count,
  /** These stay, with their dates. */
  tasks: count,
  calls: count,
});
export type Erasing = z.infer<typeof erasingSchema>;

const erase = {
  heavy: true,
  /** The name, written once more: nothing brings it back. */
  body: z.object({ name: z.string().max(200) }),
  answer: z.object({ erased: z.literal(true) }),
} as const;

export const erasingEndpoints = {
  lookAtClient: endpoint(erasingPaths.lookAtClient, { heavy: true, answer: erasingSchema }),
  client: endpoint(erasingPaths.client, erase),
  lookAtPerson: endpoint(erasingPaths.lookAtPerson, { heavy: true, answer: erasingSchema }),
  person: endpoint(erasingPaths.person, erase),
};
