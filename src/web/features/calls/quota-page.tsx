import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import * as z from 'zod/mini';
import type { CallQuota, QuotaInput } from '../../../contract/index.ts';
import {
  dayOfIso,
  isoOfDay,
  type PoolCondition,
  plural,
  type QuotaTerms,
  sayCondition,
  termsOn,
} from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { ChoiceBlank, DateBlank, DayOrNone, NameBlank, NumberBlank, Part, TimeBlank } from '../../kit/blanks.tsx';
import { useDraft } from '../../kit/draft.ts';
import { NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { goToUnread } from '../../kit/unread.ts';
import { usePlans } from '../plans/api.ts';
import { useCallActions, useQuotaLook, useQuotas } from './api.ts';
import { ConditionBlanks, newCondition } from './condition-blanks.tsx';
import { QuotaLookPart } from './quota-look.tsx';
import { sayAmount } from './quota-words.ts';

/** A quota in sentences with blanks, beside what it comes to. */
export default function QuotaPage() {
  const { may } = useWorkspace();
  const { quotaId = 'new' } = useParams();
  const { data, error, mutate } = useQuotas();
  if (!may('plan')) return <NotAllowed right="plan" what="write quotas" to="/calls" back="Your calls" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={12} />;
  const quota = data.quotas.find(({ id }) => id === quotaId) ?? null;
  if (quota === null && quotaId !== 'new')
    return <NotAllowed right="plan" what="find this quota" to="/calls/quotas" back="All quotas" />;
  return <Quota key={quota?.id ?? 'new'} quota={quota} />;
}

const NEW: QuotaTerms = {
  amount: { count: 12, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
  group: { of: 'people', ids: [] },
  pool: { v: 1, conditions: [{ kind: 'notRungFor', days: 30 }] },
  ...{ first: 'neverRung', usualFirst: true, gap: 2, carryDays: 1, readyAt: '08:00', mails: true },
  ...{ minutesEach: 10, asks: [] },
};

interface QuotaDraft {
  readonly name: string;
  readonly from: string;
  readonly endsOn: string | null;
  readonly isPaused: boolean;
  readonly says: QuotaTerms;
}
const draftSchema = z.object({
  ...{ name: z.string(), from: z.string(), endsOn: z.nullable(z.string()), isPaused: z.boolean() },
  says: z.looseObject({ amount: z.looseObject({ count: z.number() }), pool: z.looseObject({ v: z.literal(1) }) }),
});

function Quota({ quota }: { readonly quota: CallQuota | null }) {
  const { today, roles, people, clientFields } = useWorkspace();
  const navigate = useNavigate();
  const { data: planList } = usePlans();
  const { createQuota, changeQuota } = useCallActions();
  const [busy, setBusy] = useState(false);
  const [first = ''] = roles;
  const saved = quota && (termsOn(quota, today) ?? quota.terms.at(-1)?.says);
  const isPaused = quota?.pauses.some(
    ({ from, to }) => from <= isoOfDay(today) && (to === null || to > isoOfDay(today)),
  );
  const { draft, change, forget, isChanged } = useDraft<QuotaDraft>(
    `quota.${quota?.id ?? 'new'}`,
    {
      name: quota?.name ?? '',
      from: isoOfDay(
        quota && dayOfIso(quota.startsOn) <= today
          ? today + 1
          : Math.max(today, dayOfIso(quota?.startsOn ?? isoOfDay(today))),
      ),
      endsOn: quota?.endsOn ?? null,
      isPaused: isPaused ?? false,
      says: saved ?? { ...NEW, group: first === '' ? NEW.group : { of: 'role', role: first } },
    },
    draftSchema,
  );
  const { says } = draft;
  const set = (part: Partial<QuotaTerms>) => change({ ...draft, says: { ...says, ...part } });
  const setAmount = (part: Partial<QuotaTerms['amount']>) => set({ amount: { ...says.amount, ...part } });
  const input: QuotaInput = {
    ...{ name: draft.name, from: draft.from, endsOn: draft.endsOn, says },
    pauses: pausesOf(quota, draft, isPaused ?? false),
  };
  const { name: _, ...looked } = input;
  const { look, problem, isOfNow } = useQuotaLook({ ...looked, quotaId: quota?.id ?? null });
  const canSave = draft.name.trim() !== '' && problem === null && isOfNow && !busy && (quota === null || isChanged);
  const save = async () => {
    if (!canSave || goToUnread()) return;
    setBusy(true);
    try {
      if (quota === null) {
        const id = await createQuota(input);
        forget();
        await navigate(`/calls/quotas/${id}`, { replace: true });
      } else {
        await changeQuota(quota.id, quota.version, input);
        forget();
      }
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      sayTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  useKeys([{ key: 'Mod+Enter', says: 'Save the quota', run: () => void save() }]);
  const plans = planList?.plans.filter(({ isArchived }) => !isArchived) ?? [];
  const names = {
    plans: new Map(plans.map(({ id, name }) => [id, name])),
    people: new Map(people.map(({ id, name }) => [id, name])),
    fields: clientFields,
  };
  const setCondition = (at: number, condition: PoolCondition | null) =>
    set({
      pool: {
        v: 1,
        conditions: says.pool.conditions.flatMap((one, i) => (i === at ? (condition ? [condition] : []) : [one])),
      },
    });
  const wrong = problem?.problem.errors?.map(({ message }) => message).join(' ') ?? problem?.message ?? null;
  const group = says.group.of === 'role' ? `role ${says.group.role}` : (says.group.ids[0] ?? '');
  const days = [
    ['madeUp', `made up in the ${says.amount.per === 'month' ? 'month' : 'week'}`],
    ['off', 'taken off'],
  ] as const;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>{`${quota?.name ?? 'New quota'} · Jolly Rota`}</title>
      <div className="page-head flex-wrap">
        <h1>{quota?.name ?? 'New quota'}</h1>
        {quota && saved && <span className="text-row text-ink-2">{sayAmount(saved)}</span>}
        <span className="ml-auto text-row text-ink-2" role="status">
          {wrong ? <span className="text-late">{wrong}</span> : isChanged ? 'Not saved yet.' : ''}
        </span>
        <Link className="btn" to="/calls/quotas">
          All quotas
        </Link>
        {isChanged && (
          <button type="button" className="btn" onClick={forget}>
            Put back
          </button>
        )}
        <button type="button" className="btn btn-primary" disabled={!canSave} onClick={() => void save()}>
          {dayOfIso(draft.from) === today + 1 ? 'Save from tomorrow' : 'Save it'}
        </button>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[464px_minmax(0,1fr)] border-t border-line-2 max-[1100px]:block max-[1100px]:overflow-y-auto">
        <div className="min-h-0 overflow-y-auto border-r border-line-2 text-row leading-8 max-[1100px]:border-r-0">
          <Part name="Name">
            <NameBlank
              label="Name"
              shown={draft.name}
              placeholder="Renewal calls"
              width={24}
              onChange={(name) => change({ ...draft, name })}
            />
          </Part>
          <Part name="How many">
            <NumberBlank
              label="How many calls"
              value={says.amount.count}
              least={1}
              most={400}
              onChange={(count) => setAmount({ count })}
            />{' '}
            calls{' '}
            <ChoiceBlank
              label="In which time"
              value={says.amount.per}
              options={[
                ['day', 'a working day'],
                ['week', 'a week'],
                ['month', 'a month'],
              ]}
              onChange={(per) => setAmount({ per })}
            />{' '}
            for{' '}
            <ChoiceBlank
              label="Who rings"
              value={group}
              options={[
                ...(group === '' ? [['', 'somebody'] as const] : []),
                ...roles.map((role) => [`role ${role}`, `each ${role}`] as const),
                ...people.map(({ id, name }) => [id, name] as const),
              ]}
              onChange={(chosen) =>
                set({
                  group: chosen.startsWith('role ')
                    ? { of: 'role', role: chosen.slice('role '.length) }
                    : { of: 'people', ids: chosen === '' ? [] : [chosen] },
                })
              }
            />{' '}
            <ChoiceBlank
              label="In which shares"
              value={says.amount.share}
              options={[
                ['same', 'the same for everyone'],
                ['hours', 'by their hours'],
              ]}
              onChange={(share) => setAmount({ share })}
            />
            ,{' '}
            <ChoiceBlank
              label="Whether a day has a limit"
              value={says.amount.mostADay === null ? 'any' : 'most'}
              options={[
                ['any', 'as many as fall'],
                ['most', 'at most'],
              ]}
              onChange={(limit) => setAmount({ mostADay: limit === 'any' ? null : 15 })}
            />{' '}
            {says.amount.mostADay !== null && (
              <NumberBlank
                label="At most"
                value={says.amount.mostADay}
                least={1}
                most={400}
                onChange={(mostADay) => setAmount({ mostADay })}
              />
            )}{' '}
            in a day
            {says.amount.per !== 'day' && (
              <>
                ; holidays{' '}
                <ChoiceBlank
                  label="Holidays"
                  value={says.amount.holidays}
                  options={days}
                  onChange={(holidays) => setAmount({ holidays })}
                />
                , leave{' '}
                <ChoiceBlank
                  label="Leave"
                  value={says.amount.leave}
                  options={days}
                  onChange={(leave) => setAmount({ leave })}
                />
              </>
            )}
          </Part>
          <Part name="From whom">
            <ul>
              {says.pool.conditions.map((condition, i) => (
                <li
                  // biome-ignore lint/suspicious/noArrayIndexKey: sentences in their order, each written in its place
                  key={`${condition.kind} ${i}`}
                  className="grid grid-cols-[minmax(0,1fr)_64px_44px] items-start gap-x-2"
                >
                  <span>
                    <ConditionBlanks condition={condition} plans={plans} onChange={(next) => setCondition(i, next)} />{' '}
                    <button
                      type="button"
                      className="link-line text-note text-ink-2"
                      aria-label={`Take out: ${sayCondition(condition, names)}`}
                      onClick={() => setCondition(i, null)}
                    >
                      out
                    </button>
                  </span>
                  <Share part={look?.funnel.after[i]} all={look?.funnel.all} />
                </li>
              ))}
              {(['notNever', 'withNumber', 'free'] as const).map((step) => (
                <li key={step} className="grid grid-cols-[minmax(0,1fr)_64px_44px] items-start gap-x-2 text-ink-2">
                  <span>{STEPS[step]}</span>
                  <Share part={look?.funnel[step]} all={look?.funnel.all} isLast={step === 'free'} />
                </li>
              ))}
            </ul>
            <ChoiceBlank
              label="Add a condition"
              value=""
              options={[
                ['', 'add a condition'],
                ['plans', 'on a service plan'],
                ['usualPeople', 'looked after by'],
                ['notRungFor', 'not rung for'],
                ['neverRung', 'never rung'],
                ...clientFields.map(({ key, name }) => [`field ${key}`, name] as const),
              ]}
              onChange={(chosen) => {
                const condition = newCondition(chosen, { plans, people, clientFields });
                if (condition) set({ pool: { v: 1, conditions: [...says.pool.conditions, condition] } });
              }}
            />
          </Part>
          <Part name="Order">
            promised calls at their time, then{' '}
            <ChoiceBlank
              label="Who comes first"
              value={says.first}
              options={[
                ['neverRung', 'never rung, then longest ago'],
                ['rungBefore', 'rung longest ago, then never rung'],
              ]}
              onChange={(order) => set({ first: order })}
            />
            ; clients{' '}
            <ChoiceBlank
              label="Whose list they stand on"
              value={says.usualFirst ? 'usual' : 'any'}
              options={[
                ['usual', 'with whoever looks after them'],
                ['any', 'with anybody'],
              ]}
              onChange={(usual) => set({ usualFirst: usual === 'usual' })}
            />
            ; nobody sooner than{' '}
            <NumberBlank
              label="Days between two calls"
              value={says.gap}
              least={1}
              most={365}
              onChange={(gap) => set({ gap })}
            />{' '}
            {says.gap === 1 ? 'day' : 'days'} after a call of anybody’s
          </Part>
          <Part name="Each day">
            ready at{' '}
            <TimeBlank
              label="Ready at"
              value={says.readyAt}
              placeholder="08:00"
              when="left"
              onChange={(at) => set({ readyAt: at ?? '08:00' })}
            />{' '}
            <ChoiceBlank
              label="Mail"
              value={says.mails ? 'mail' : 'none'}
              options={[
                ['mail', 'with a mail of names and numbers'],
                ['none', 'without a mail'],
              ]}
              onChange={(mail) => set({ mails: mail === 'mail' })}
            />
            ; about{' '}
            <NumberBlank
              label="Minutes a call"
              value={says.minutesEach}
              least={1}
              most={240}
              onChange={(minutesEach) => set({ minutesEach })}
            />{' '}
            min a call; not made: carried over for{' '}
            <NumberBlank
              label="Days carried over"
              value={says.carryDays}
              least={0}
              most={10}
              onChange={(carryDays) => set({ carryDays })}
            />{' '}
            working {says.carryDays === 1 ? 'day' : 'days'}, then dropped
          </Part>
          <Part name="How long">
            {quota === null || dayOfIso(quota.startsOn) > today ? 'from ' : 'this counts from '}
            <DateBlank
              label="From"
              value={dayOfIso(draft.from)}
              onChange={(day) => change({ ...draft, from: isoOfDay(day) })}
            />{' '}
            until{' '}
            <DayOrNone
              label="Last day"
              value={draft.endsOn}
              placeholder="stopped"
              onChange={(endsOn) => change({ ...draft, endsOn })}
            />
            {quota !== null && (
              <>
                ,{' '}
                <ChoiceBlank
                  label="Whether it is paused"
                  value={draft.isPaused ? 'paused' : 'runs'}
                  options={[
                    ['runs', 'it runs'],
                    ['paused', 'paused'],
                  ]}
                  onChange={(state) => change({ ...draft, isPaused: state === 'paused' })}
                />
              </>
            )}
          </Part>
          <Part name="What to ask">
            <textarea
              className="blank block h-auto w-full resize-y py-1.5 leading-6"
              aria-label="What to ask, a line each"
              placeholder="Does the berth suit them next year?"
              rows={Math.max(3, says.asks.length + 1)}
              value={says.asks.join('\n')}
              onChange={({ target }) => set({ asks: target.value === '' ? [] : target.value.split('\n').slice(0, 12) })}
              onBlur={() => set({ asks: says.asks.map((ask) => ask.trim()).filter(Boolean) })}
            />
          </Part>
        </div>
        {look && <QuotaLookPart look={look} says={says} isOfNow={isOfNow} />}
      </div>
    </div>
  );
}

const STEPS = {
  notNever: 'not on do not call',
  withNumber: 'with a number that works',
  free: 'rested, and on no list of the day',
} as const;

/** Pauses as they would be: begun from the day on which the rest counts, or over on it. */
function pausesOf(quota: CallQuota | null, { from, isPaused }: QuotaDraft, wasPaused: boolean): QuotaInput['pauses'] {
  const pauses = quota?.pauses ?? [];
  if (isPaused === wasPaused) return pauses;
  if (isPaused) return [...pauses, { from, to: null }];
  return pauses.flatMap((pause) => (pause.to === null ? (pause.from < from ? [{ ...pause, to: from }] : []) : [pause]));
}

function Share({
  part,
  all,
  isLast = false,
}: {
  readonly part: number | undefined;
  readonly all: number | undefined;
  readonly isLast?: boolean;
}) {
  if (part === undefined || !all) return null;
  return (
    <>
      <span aria-hidden className="mt-3 block h-2 bg-line">
        <span
          className={`block h-full ${isLast ? 'bg-ink' : 'bg-petrol-2'}`}
          style={{ width: `${(100 * part) / all}%` }}
        />
      </span>
      <span
        className={`text-right font-mono ${isLast ? 'font-semibold text-ink' : ''}`}
        title={`${part} of ${plural(all, 'contact')}`}
      >
        {part}
      </span>
    </>
  );
}
