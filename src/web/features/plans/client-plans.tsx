import { useState } from 'react';
import { Link } from 'react-router';
import type { ClientRecord, PlanOfClient, PlanStart } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, plural, sayDuration } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank } from '../../kit/blanks.tsx';
import { DeedSentence } from '../../kit/chosen-foot.tsx';
import { TEXT_FORM, useDraft } from '../../kit/draft.ts';
import { sayDate, sayDay } from '../../kit/ways.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { usePlanActions, usePlans } from './api.ts';
import { StartBlank } from './start-blank.tsx';

/** What has to be known of whose plans they are. */
export type PlanHolder = Pick<ClientRecord, 'name' | 'isArchived'>;

interface ClientPlansProps {
  readonly client: PlanHolder;
  readonly plans: readonly PlanOfClient[];
  /** From which day a client is taken off where nothing else is said: today. */
  readonly offFrom?: CivilDay;
}

/** The plans that a client is on, item by item: what is as the plan says, and what is the client's own beside it. */
export function ClientPlans({ client, plans, offFrom }: ClientPlansProps) {
  const { today } = useWorkspace();
  return plans.map((plan) => <OnPlan key={plan.id} client={client} on={plan} offFrom={offFrom ?? today} />);
}

function OnPlan({
  client,
  on,
  offFrom,
}: {
  readonly client: PlanHolder;
  readonly on: PlanOfClient;
  readonly offFrom: CivilDay;
}) {
  const { may } = useWorkspace();
  const [isGoing, setGoing] = useState(false);
  const { plan, fromOn, offOn, untilOn, items } = on;
  const mayChange = may('plan') && !client.isArchived;
  return (
    <section aria-label={plan.name} className="border-b border-line-2">
      <h2 className="flex flex-wrap items-baseline gap-x-3 border-b border-line px-5 py-2.5 text-body leading-5.5 max-[720px]:px-4">
        <Link className="text-primary hover:underline" to={`/plans/${plan.id}`}>
          {plan.name}
        </Link>
        <span className="font-sans text-note font-normal font-stretch-normal text-ink-2 normal-nums">
          {offOn ? `off from ${sayDate(dayOfIso(offOn))}` : sayTime({ fromOn, untilOn }, plan.rollsOn)}
        </span>
        {mayChange && offOn === null && (
          <button
            type="button"
            className="link-line ml-auto font-sans text-row font-normal font-stretch-normal"
            aria-expanded={isGoing}
            onClick={() => setGoing(!isGoing)}
          >
            Take off …
          </button>
        )}
      </h2>
      {isGoing && <TakeOff client={client} on={on} first={offFrom} onDone={() => setGoing(false)} />}
      <ul>
        {items.map((item) => (
          <Item
            key={item.scheduleId ?? `${item.item} ${item.assetId}`}
            client={client}
            on={on}
            item={item}
            mayChange={mayChange && offOn === null}
          />
        ))}
      </ul>
      <p className="flex flex-wrap items-baseline gap-x-3 px-5 py-2 text-row max-[720px]:px-4">
        <b className="font-semibold">
          {plural(on.tasks, 'task')}, {sayDuration(on.minutes)} a year
        </b>
        {(on.tasks !== on.planTasks || on.minutes !== on.planMinutes) && (
          <span className="ml-auto text-note text-ink-2">
            by the plan {plural(on.planTasks, 'task')}, {sayDuration(on.planMinutes)}
          </span>
        )}
      </p>
    </section>
  );
}

function sayTime(
  { fromOn, untilOn }: Pick<PlanOfClient, 'fromOn' | 'untilOn'>,
  rollsOn: PlanOfClient['plan']['rollsOn'],
): string {
  const since = `since ${sayDate(dayOfIso(fromOn))}`;
  if (untilOn !== null) return `${since}, until ${sayDate(dayOfIso(untilOn))}`;
  return rollsOn === 'itself' ? `${since}, goes on` : since;
}

interface ItemProps {
  readonly client: PlanHolder;
  readonly on: PlanOfClient;
  readonly item: PlanOfClient['items'][number];
  readonly mayChange: boolean;
}

/** One item: as the plan, the client's own with what the plan says beside it, or left out. */
function Item({ client, on, item, mayChange }: ItemProps) {
  const { today } = useWorkspace();
  const [isLeaving, setLeaving] = useState(false);
  const { template, asset, scheduleId, aspects, leftOut, says, planSays, next, state } = item;
  const isOwn = aspects.length > 0 || leftOut !== null;
  // An asset that came after the client, or whose schedule was deleted.
  const isLacking = scheduleId === null && leftOut === null;
  const name = `${template.name}${asset ? `, ${asset}` : ''}`;
  return (
    <li className="border-b border-line py-2 pr-5 pl-5 text-row leading-5 last:border-b-0 max-[720px]:px-4">
      <div className="grid grid-cols-[58px_minmax(0,1fr)]">
        <span
          className={`text-note ${isLacking ? 'font-semibold text-late' : isOwn ? 'font-semibold text-primary' : 'text-ink-2'}`}
        >
          {isLacking ? 'lacking' : isOwn ? 'own' : 'as plan'}
        </span>
        <div className="min-w-0">
          <span className="flex items-baseline gap-3">
            {isLacking ? (
              <span className="min-w-0 truncate text-body font-semibold">{name}</span>
            ) : scheduleId === null ? (
              <s className="min-w-0 truncate text-body font-semibold text-ink-2">{name}</s>
            ) : (
              <Link
                className="min-w-0 truncate text-body font-semibold hover:underline"
                to={`/schedules/${scheduleId}`}
              >
                {name}
              </Link>
            )}
            <span className="ml-auto text-note whitespace-nowrap text-ink-2">
              {isLacking
                ? 'no schedule yet'
                : leftOut !== null
                  ? 'left out'
                  : next
                    ? `next ${sayDay(dayOfIso(next), today)}`
                    : state === 'problem'
                      ? 'no plan'
                      : (state ?? '')}
            </span>
          </span>
          {leftOut !== null && <span className="block">{leftOut}</span>}
          {aspects.length > 0 && (
            <span className="block underline decoration-primary decoration-2 underline-offset-3">{says}</span>
          )}
          <span className={`mr-3 ${isOwn ? 'text-note' : ''} text-ink-2`}>
            {isOwn || isLacking ? `plan says ${planSays}` : planSays}
          </span>
          {mayChange && (
            <span className="inline-flex flex-wrap gap-x-3">
              {aspects.length > 0 && <AsPlan on={on} item={item} name={name} client={client} />}
              {isLacking ? (
                <LeavingOut on={on} item={item} name={name} client={client} why={null} words="Take it in" />
              ) : leftOut === null ? (
                <button
                  type="button"
                  className="link-line text-note leading-5 text-ink-2"
                  aria-label={`Leave ${name} out`}
                  aria-expanded={isLeaving}
                  onClick={() => setLeaving(!isLeaving)}
                >
                  Leave out …
                </button>
              ) : (
                <LeavingOut on={on} item={item} name={name} client={client} why={null} words="Take it in again" />
              )}
            </span>
          )}
        </div>
      </div>
      {isLeaving && <WhyLeftOut on={on} item={item} name={name} client={client} />}
    </li>
  );
}

interface DeedProps {
  readonly on: PlanOfClient;
  readonly item: PlanOfClient['items'][number];
  readonly name: string;
  readonly client: PlanHolder;
}

/** Gives what is the client's own up. */
function AsPlan({ on, item, name, client }: DeedProps) {
  const { today } = useWorkspace();
  const { impactOfAsPlan, asPlan } = usePlanActions();
  const schedules = item.scheduleId === null ? [] : [item.scheduleId];
  const from = isoOfDay(today);
  const { look, busy, dialog } = useLookedAt<{ readonly what: string }>({
    impactOf: (_, reach) => impactOfAsPlan(on.plan.id, schedules, from, reach),
    save: (_, reach) => asPlan(on.plan.id, schedules, from, `${name} of ${client.name} is as the plan says.`, reach),
    hasReach: true,
    onRefused: sayTrouble,
  });
  return (
    <>
      {dialog}
      <button
        type="button"
        className="link-line text-note leading-5"
        disabled={busy}
        onClick={() => look({ what: `${name} of ${client.name}, as ${on.plan.name} says` })}
      >
        As the plan
      </button>
    </>
  );
}

function LeavingOut({
  on,
  item,
  name,
  client,
  why,
  words,
  onDone,
}: DeedProps & { readonly why: string | null; readonly words: string; readonly onDone?: () => void }) {
  const { today } = useWorkspace();
  const { impactOfLeavingOut, leaveOut } = usePlanActions();
  const again = item.leftOut === null ? '' : ' again';
  const body = { version: on.version, item: item.item, assetId: item.assetId, why, from: isoOfDay(today) };
  const { look, busy, dialog } = useLookedAt<{ readonly what: string }>({
    impactOf: () => impactOfLeavingOut(on.id, body),
    save: () =>
      leaveOut(
        on.id,
        body,
        why === null ? `${client.name} has ${name}${again}.` : `${client.name} does without ${name}.`,
      ),
    hasReach: false,
    ...(onDone ? { onSaved: onDone } : {}),
    onRefused: sayTrouble,
  });
  return (
    <>
      {dialog}
      <button
        type="button"
        className={why === null ? 'link-line text-note leading-5' : 'btn btn-primary btn-sm'}
        disabled={busy || why === ''}
        onClick={() =>
          look({ what: why === null ? `${name} for ${client.name}${again}` : `${name} left out for ${client.name}` })
        }
      >
        {words}
      </button>
    </>
  );
}

function WhyLeftOut(props: DeedProps) {
  const { on, item } = props;
  // What was typed is there again when the line was closed in between.
  const {
    draft: why,
    change: setWhy,
    forget,
  } = useDraft<string>(`left-out.${on.id}.${item.item}.${item.assetId}`, '', TEXT_FORM);
  return (
    <div className="flex flex-wrap items-center gap-x-3 pt-1 leading-8">
      <span>
        left out from today, as{' '}
        <input
          className="blank h-7 w-[240px]"
          aria-label={`Why ${props.name} is left out`}
          placeholder="the agreement runs to 2029"
          maxLength={200}
          // biome-ignore lint/a11y/noAutofocus: it was just asked for
          autoFocus
          value={why}
          onChange={({ target }) => setWhy(target.value)}
        />
      </span>
      <LeavingOut {...props} why={why.trim()} words="Look at what it changes" onDone={forget} />
    </div>
  );
}

const STAYS = 'no other plan';

/** Off the plan from a day, with what becomes of open tasks; or over to another one. */
function TakeOff({
  client,
  on,
  first,
  onDone,
}: {
  readonly first: CivilDay;
  readonly client: PlanHolder;
  readonly on: PlanOfClient;
  readonly onDone: () => void;
}) {
  const { today } = useWorkspace();
  const { impactOfTakingOff, takeOff } = usePlanActions();
  const { data } = usePlans();
  const [from, setFrom] = useState(first);
  const [tasks, setTasks] = useState<'go' | 'stay'>('go');
  const [toId, setTo] = useState(STAYS);
  const [start, setStart] = useState<PlanStart | null>(null);
  const others =
    data?.plans.filter(({ id, isArchived, items }) => id !== on.plan.id && !isArchived && items.length > 0) ?? [];
  const to = others.find(({ id }) => id === toId);
  const body = {
    clients: [{ id: on.id, version: on.version }],
    ...{ from: isoOfDay(from), tasks },
    to: to ? { planId: to.id, version: to.version } : null,
    start,
  };
  const what = to ? `${client.name} from ${on.plan.name} to ${to.name}` : `${client.name} off ${on.plan.name}`;
  const { look, busy, dialog } = useLookedAt<{ readonly what: string }>({
    impactOf: () => impactOfTakingOff(body),
    save: () =>
      takeOff(
        body,
        to
          ? `${client.name} is on ${to.name} from ${sayDate(from)}.`
          : `${client.name} is off ${on.plan.name} from ${sayDate(from)}.`,
      ),
    hasReach: false,
    always: true,
    onSaved: onDone,
    onRefused: sayTrouble,
  });
  return (
    <div className="border-b border-line bg-chosen px-5 pt-px pb-2.5 max-[720px]:px-4">
      {dialog}
      <DeedSentence
        problem={from < today ? 'From today on, or from a later day.' : null}
        busy={busy}
        onLook={() => look({ what })}
      >
        off from <DateBlank label="Off from" value={from} onChange={setFrom} />, open tasks from then on{' '}
        <ChoiceBlank
          label="Open tasks"
          value={tasks}
          options={[
            ['go', 'go'],
            ['stay', 'stay'],
          ]}
          onChange={setTasks}
        />
        , on to{' '}
        <ChoiceBlank
          label="On to"
          value={toId}
          options={[[STAYS, STAYS] as const, ...others.map(({ id, name }) => [id, name] as const)]}
          onChange={setTo}
        />
        , <StartBlank start={start} day={from} onChange={setStart} />
      </DeedSentence>
      <p className="text-note leading-4.5 text-ink-2">What is under way stays as it is.</p>
    </div>
  );
}
