export const LIVE_TOPICS = [
  'tasks',
  'schedules',
  'templates',
  'runs',
  'workspace',
  'clients',
  'plans',
  'calls',
  'people',
  'bell',
  'backups',
] as const;

export type Topic = (typeof LIVE_TOPICS)[number];

/** What the live stream tells: what may have changed, as narrowly as whoever changed it knows. */
export interface Live {
  readonly topics: readonly Topic[];
  /** The tasks it is about, where they are few; null for any. */
  readonly tasks: readonly string[] | null;
  /** The people whose day sheets show something else by it, where they are few; null for anybody's. */
  readonly people: readonly string[] | null;
  /** Whether there is more or less to do by it, or on other days: what the tideline tells. */
  readonly load: boolean;
}

/** The name of the event that tells how far something is that a page waits for. */
export const STEPS_EVENT = 'steps';

export interface Steps {
  /** As the page has called it. */
  readonly key: string;
  /** So much of it is done, of so much. */
  readonly done: number;
  readonly of: number;
}
