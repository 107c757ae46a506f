import type { LogFilter } from '../../contract/index.ts';
import { dayOfIso, sayNumber } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { entriesOf } from './asked.ts';
import { loggedById, readingsOf } from './entries.ts';

type Lines = readonly (readonly string[])[];

/** Entries that are told at a time. */
const AT_ONCE = 250;

const HEAD = [
  ...[
    'due',
    'due at',
    'what',
    'client',
    'asset',
    'category',
    'state',
    'done by',
    'done',
    'days late',
    'minutes estimated',
  ],
  ...['readings', 'out of limits', 'pictures', 'note', 'sent back', 'signed by'],
] as const;

const STATES = { toCheck: 'to check', done: 'done', skipped: 'skipped', lapsed: 'lapsed' } as const;

/** The entries that fit as lines of a table, by the days on which they were due. */
export async function* logOut(scope: Scope, filter: LogFilter): AsyncGenerator<Lines> {
  yield [HEAD];
  for (let after: { readonly on: string; readonly id: string } | null = null; ; ) {
    const asked = await entriesOf(scope, filter);
    if (after !== null) asked.and(`(t.due_on, t.id) > (${asked.with(after.on)}::date, ${asked.with(after.id)}::uuid)`);
    const found: { id: string; on: string }[] = await scope.sql(
      `select t.id, t.due_on as "on" from task t where ${asked.where} order by t.due_on, t.id limit ${AT_ONCE}`,
      asked.params,
    );
    const ids = found.map(({ id }) => id);
    const logged = await loggedById(scope, ids);
    yield ids.flatMap((id) => {
      const one = logged.get(id);
      if (!one) return [];
      const { entry, row } = one;
      const readings = readingsOf(row);
      const say = (all: typeof readings) =>
        all.map(({ reading: { label, value, unit } }) => `${label} ${sayNumber(value)} ${unit}`.trim()).join('; ');
      return [
        [
          ...[entry.dueOn, entry.dueTime ?? '', entry.title, entry.client?.name ?? '', entry.asset?.name ?? ''],
          ...[row.category ?? '', STATES[entry.state], entry.by ?? '', entry.doneAt?.replace('T', ' ') ?? ''],
          ...[entry.late ? String(entry.daysLate) : '', String(row.estimateMinutes)],
          ...[say(readings), say(readings.filter(({ isOut }) => isOut)), String(entry.pictures)],
          ...[entry.note, entry.wasSentBack ? 'yes' : '', entry.signedBy ?? ''],
        ],
      ];
    });
    const last = found.at(-1);
    if (!last || found.length < AT_ONCE) return;
    after = last;
  }
}

/** The name of the file: "logbook 2026-05-25 to 2026-11-22". @throws Error for days that are none */
export function nameOfLog({ from, to }: Pick<LogFilter, 'from' | 'to'>): string {
  dayOfIso(from);
  dayOfIso(to);
  return `logbook ${from} to ${to}`;
}
