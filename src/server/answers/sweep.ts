/** So many days the bytes of what came with an answer wait for somebody to take them. */
const KEPT_DAYS = 180;

/** Lets go of the bytes of files that came with answers and that nobody has taken in all that time; their names stay. */
export async function sweepAnswerParts(
  source: { query<T>(sql: string, params?: unknown[]): Promise<T> },
  now: Date,
): Promise<void> {
  await source.query(
    `update answer_part part set bytes = null from answer
     where answer.workspace_id = part.workspace_id and answer.id = part.answer_id and part.bytes is not null
       and answer.at < $1::timestamptz - interval '${KEPT_DAYS} days'`,
    [now],
  );
}
