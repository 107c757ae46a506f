import { z } from 'zod';

/**
 * A backup is a tar archive (POSIX.1-2001), packed by gzip (RFC 1952), of: `backup.json`, what it is of; `tables/NN-NAME/NNNNNN.jsonl`,
 * rows as JSON, one a line (UTF-8, LF), each table after those its rows name; `files/NAME`, the bytes of files; `missing-files`, a
 * line for each file whose bytes are gone; and at the end `SHA256SUMS`, a line for each entry before it, as `sha256sum -c` reads it.
 * The same workspace gives the same bytes, whenever and wherever it is written.
 */
export const FORMAT = 'jolly-rota-backup';
export const FORMAT_VERSION = 1;

export const HEAD = 'backup.json';
export const SUMS = 'SHA256SUMS';
export const MISSING = 'missing-files';
export const FILES = 'files/';
export const TABLES = 'tables/';

export const headSchema = z.object({
  format: z.literal(FORMAT, 'That is no backup of Jolly Rota.'),
  version: z.number().int(),
  /** The last step by which the tables came to be what they were. */
  schema: z.string(),
  workspace: z.object({ id: z.uuid(), name: z.string() }),
});
export type Head = z.infer<typeof headSchema>;

/** "tables/07-task/000012.jsonl" */
export const nameOfRows = (place: number, table: string, part: number): string =>
  `${TABLES}${String(place).padStart(2, '0')}-${table}/${String(part).padStart(6, '0')}.jsonl`;
export const tableOf = (entry: string): string | null => /^tables\/\d+-([a-z_]+)\/\d+\.jsonl$/.exec(entry)?.[1] ?? null;
