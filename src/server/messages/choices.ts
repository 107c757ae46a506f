import { type HeardOf, MESSAGE_DAYS } from '../../contract/index.ts';
import {
  type Access,
  canHear,
  HEARD_BY,
  type HearChoices,
  type HearRules,
  type HearWish,
  hearRule,
  hearWish,
  isoOfDay,
  MESSAGE_KINDS,
  MESSAGE_SIDES,
  type MessageKind,
  type MessageSide,
  type QuietWish,
  USUAL_QUIET,
} from '../../core/index.ts';
import type { Person } from '../platform/identity/person.ts';
import { invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { MessageWishRecord } from './entity.ts';

/** What can't be turned off. */
function fixedOf(rules: HearRules, access: Access, side: MessageSide, kind: MessageKind): HearWish {
  const { here, mail, phone } = hearRule(rules, access, side, kind);
  return { here: here === 'always', mail: mail === 'always', phone: phone === 'always' };
}

/** Where somebody hears of what, and how often that was. */
export async function choicesOf(
  scope: Scope,
  { id, access }: Person,
): Promise<{ hears: HeardOf[]; countedFrom: string; quiet: QuietWish; mailHours: number[] }> {
  const { hearing } = scope.workspace;
  const countedFrom = isoOfDay(scope.now.day - MESSAGE_DAYS + 1);
  const [[own], counts, hours] = await scope.atOnce(
    () => scope.find(MessageWishRecord, { personId: id }),
    () =>
      scope.sql<{ side: MessageSide; kind: MessageKind; times: number }>(
        `select side, kind, sum(times)::int as times from message_count
         where workspace_id = $1 and person_id = $2 and on_day >= $3::date group by side, kind`,
        [id, countedFrom],
      ),
    () =>
      scope.sql<{ hour: number; count: number }>(
        `select extract(hour from at at time zone $4)::int as hour, count(*)::int as count from message
         where workspace_id = $1 and person_id = $2 and mail in ('waits', 'sent') and at >= $3::date - 1 and (at at time zone $4)::date >= $3::date
         group by hour`,
        [id, countedFrom, scope.workspace.zone],
      ),
  );
  const times = new Map(counts.map((one) => [`${one.side} ${one.kind}`, one.times]));
  const byHour = new Map(hours.map(({ hour, count }) => [hour, count]));
  return {
    hears: MESSAGE_SIDES.flatMap((side) =>
      MESSAGE_KINDS.flatMap((kind) => {
        const wish = hearWish(access, own?.hears ?? {}, side, kind, hearing);
        const fixed = fixedOf(hearing, access, side, kind);
        return wish === null ? [] : [{ side, kind, times: times.get(`${side} ${kind}`) ?? 0, wish, fixed }];
      }),
    ),
    countedFrom,
    quiet: own?.quiet ?? USUAL_QUIET,
    mailHours: Array.from({ length: 24 }, (_, hour) => byHour.get(hour) ?? 0),
  };
}

/** Where one kind of thing is heard of from now on; the other kinds stay as they are, and as usual where nothing was chosen. */
export function wishKind(
  scope: Scope,
  { side, kind, wish }: { readonly side: MessageSide; readonly kind: MessageKind; readonly wish: HearWish },
): Promise<{ wish: HearWish }> {
  const { id, access } = scope.me;
  if (!canHear(access, side, kind)) throw invalid([{ path: 'kind', message: 'This is none of yours to hear of.' }]);
  const fixed = fixedOf(scope.workspace.hearing, access, side, kind);
  for (const where of HEARD_BY)
    if (fixed[where] && !wish[where])
      throw invalid([{ path: `wish.${where}`, message: 'That is always told: it can’t be turned off.' }]);
  return scope.transaction(async (tx) => {
    await tx.sql(
      'insert into message_wish (workspace_id, person_id) values ($1, $2) on conflict (workspace_id, person_id) do nothing',
      [id],
    );
    const [own] = await tx.sql<{ hears: HearChoices | null }>(
      'select hears from message_wish where workspace_id = $1 and person_id = $2 for update',
      [id],
    );
    const hears: HearChoices = { ...own?.hears, [side]: { ...own?.hears?.[side], [kind]: wish } };
    await tx.sql('update message_wish set hears = $3 where workspace_id = $1 and person_id = $2', [
      id,
      JSON.stringify(hears),
    ]);
    return { wish };
  });
}

/** When mails of single things wait from now on: those that wait already keep their time. */
export async function wishQuiet(scope: Scope, quiet: QuietWish): Promise<{ quiet: QuietWish }> {
  await scope.sql(
    `insert into message_wish (workspace_id, person_id, quiet) values ($1, $2, $3)
     on conflict (workspace_id, person_id) do update set quiet = $3`,
    [scope.me.id, JSON.stringify(quiet)],
  );
  return { quiet };
}
