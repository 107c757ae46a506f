import { Link, useNavigate, useParams } from 'react-router';
import { type CallQuota, MOST_CALLS } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, type QuotaTerms, termsOn } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, DayOrNone, NameBlank, NumberBlank, Part, TimeBlank } from '../../kit/blanks.tsx';
import { useDraft } from '../../kit/draft.ts';
import { MeanwhileLine } from '../../kit/meanwhile-line.tsx';
import { SomeBlank } from '../../kit/some-blank.tsx';
import { Empty, NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { goToUnread } from '../../kit/unread.ts';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDate } from '../../kit/ways.ts';
import { useCallActions, useQuotaLook, useQuotas } from './api.ts';
import { PoolPart } from './pool-part.tsx';
import { draftOf, inputOf, ofParts, PART_WORDS, partsOf, type QuotaDraft, quotaDraftSchema } from './quota-draft.ts';
import { QuotaLookPart } from './quota-look.tsx';
import { sayAmount, sayComing } from './quota-words.ts';

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
    return (
      <Empty title="There is no such quota.">
        <Link className="link-line" to="/calls/quotas">
          All quotas
        </Link>
      </Empty>
    );
  return <Quota key={quota?.id ?? 'new'} quota={quota} />;
}

function Quota({ quota }: { readonly quota: CallQuota | null }) {
  const { today, roles, staffWith } = useWorkspace();
  const navigate = useNavigate();
  const { createQuota, changeQuota } = useCallActions();
  const { busy, trying } = useTrying();
  const saved = quota && (termsOn(quota, today) ?? quota.terms.at(-1)?.says);
  const initial = draftOf(quota, today, roles);
  const { draft, base, change, rebase, forget, isChanged } = useDraft<QuotaDraft>(
    `quota.${quota?.id ?? 'new'}`,
    initial,
    quotaDraftSchema,
  );
  const { says } = draft;
  const set = (part: Partial<QuotaTerms>) => change({ ...draft, says: { ...says, ...part } });
  const setAmount = (part: Partial<QuotaTerms['amount']>) => set({ amount: { ...says.amount, ...part } });
  const input = inputOf(quota, draft, today);
  const { name: _, ...looked } = input;
  const { look, problem, isOfNow } = useQuotaLook({ ...looked, quotaId: quota?.id ?? null }, quota?.version ?? null);
  const canSave = draft.name.trim() !== '' && problem === null && isOfNow && !busy && (quota === null || isChanged);
  const save = async () => {
    if (!canSave || goToUnread()) return;
    await trying(async () => {
      if (quota === null) {
        const id = await createQuota(input);
        forget();
        await navigate(`/calls/quotas/${id}`, { replace: true });
      } else {
        await changeQuota(quota.id, draft.version, input);
        forget();
      }
    });
  };
  useKeys([{ key: 'Mod+Enter', says: 'Save the quota', run: () => void save() }]);
  const wrong = problem?.problem.errors?.map(({ message }) => message).join(' ') ?? problem?.message ?? null;
  const notSaved = draft.name.trim() === '' ? 'Not saved yet: it has no name.' : 'Not saved yet.';
  const days = [
    ['madeUp', `made up in the ${says.amount.per === 'month' ? 'month' : 'week'}`],
    ['off', 'taken off'],
  ] as const;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>{`${quota?.name ?? 'New quota'} · Jolly Rota`}</title>
      {quota && isChanged && (
        <MeanwhileLine
          base={partsOf(base)}
          mine={partsOf(draft)}
          now={partsOf(initial)}
          words={PART_WORDS}
          onMerge={(parts) => rebase(ofParts(parts))}
        />
      )}
      <div className="page-head flex-wrap">
        <h1>{quota?.name ?? 'New quota'}</h1>
        {quota && saved && (
          <span className="text-row text-ink-2">{[sayAmount(saved), ...sayComing(quota, today)].join('; ')}</span>
        )}
        <span className="ml-auto text-row text-ink-2" role="status">
          {wrong ? <span className="text-late">{wrong}</span> : isChanged ? notSaved : ''}
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
              most={MOST_CALLS}
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
              value={says.group.of === 'role' ? `role ${says.group.role}` : ''}
              options={[...roles.map((role) => [`role ${role}`, `each ${role}`] as const), ['', 'each of']]}
              onChange={(chosen) =>
                set({
                  group: chosen === '' ? { of: 'people', ids: [] } : { of: 'role', role: chosen.slice('role '.length) },
                })
              }
            />{' '}
            {says.group.of === 'people' && (
              <SomeBlank
                label="Who of all"
                chosen={says.group.ids}
                options={staffWith(...says.group.ids).map(({ id, name }) => [id, name] as const)}
                join="and"
                gone="somebody who is gone"
                onChange={(ids) => set({ group: { of: 'people', ids } })}
              />
            )}{' '}
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
                most={MOST_CALLS}
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
          <PoolPart pool={says.pool} funnel={look?.funnel} onChange={(pool) => set({ pool })} />
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
                  value={draft.pausedFrom === null ? 'runs' : 'paused'}
                  options={[
                    ['runs', 'it runs'],
                    ['paused', 'paused'],
                  ]}
                  onChange={(state) => change({ ...draft, pausedFrom: state === 'paused' ? draft.from : null })}
                />
                {draft.pausedFrom !== null && ` from ${sayDate(dayOfIso(draft.pausedFrom))}`}
              </>
            )}
          </Part>
          <Part name="What to ask">
            <textarea
              className="blank block h-auto w-full resize-y py-1.5 leading-6 whitespace-pre-wrap"
              aria-label="What to ask, a line each"
              placeholder="Does the berth suit them next year?"
              rows={Math.max(3, says.asks.length + 1)}
              value={says.asks.join('\n')}
              onChange={({ target }) => set({ asks: target.value === '' ? [] : target.value.split('\n') })}
            />
          </Part>
        </div>
        {look && <QuotaLookPart look={look} says={says} isOfNow={isOfNow} />}
      </div>
    </div>
  );
}
