import type { DataSource } from 'typeorm';

/** For so many days what was told stands on the bell, and what is told once is remembered. */
const KEPT_DAYS = 90;

/** Lets go what was told long ago. @returns how many lines */
export async function sweepMessages(source: DataSource, now: Date): Promise<number> {
  const before = new Date(now.getTime() - KEPT_DAYS * 86_400_000);
  const [, lines] = await source.query<[unknown[], number]>(
    `delete from message where at < $1 and mail in ('no', 'sent')`,
    [before],
  );
  await source.query('delete from told_once where at < $1', [before]);
  await source.query('delete from message_count where on_day < $1::date', [before]);
  return lines;
}
