import { planAddresses } from '../../../contract/addresses.ts';
import type {
  GatherInput,
  LeaveOutInput,
  PlanChange,
  PlanInput,
  PlanLook,
  PutOnInput,
  PutOnLook,
  Reach,
  RollingLine,
  TakeOffInput,
} from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';
import { type Looked, useLook } from '../../kit/look.ts';
import { usePages } from '../../kit/pages.ts';
import { saySync } from '../schedules/api.ts';

export const usePlans = () => useAnswer(planAddresses.list, {});
export const usePlan = (planId: string | null) =>
  useAnswer(planAddresses.one, planId === null ? null : { params: { planId } });
export const useRolling = () => useAnswer(planAddresses.rolling, {});
export const usePlansOfClient = (clientId: string | null) =>
  useAnswer(planAddresses.ofClient, clientId === null ? null : { params: { clientId } });

/** Who is on a plan, as far down as is looked at; null asks nothing. */
export function usePlanClients(planId: string | null, isOwn: boolean) {
  type Page = Answer<typeof planAddresses.clients>;
  const { pages, first, last, ...list } = usePages<Page>((before) =>
    planId === null || before?.more === null
      ? null
      : addressOf(planAddresses.clients, {
          params: { planId },
          query: { ...(isOwn ? { own: 'yes' as const } : {}), ...(before?.more ? { after: before.more } : {}) },
        }),
  );
  return { ...list, lines: pages.flatMap(({ clients }) => clients), counts: first?.counts, isMore: !!last?.more };
}

export const usePlanLook = (
  asked: { planId: string | null; plan: PlanInput; from: string } | null,
  version: number | null,
): Looked<PlanLook> => useLook(asked, (body) => ask(planAddresses.look, { body }), version);

export const usePutOnLook = (asked: ({ readonly planId: string } & PutOnInput) | null): Looked<PutOnLook> =>
  useLook(asked, ({ planId, ...body }) => ask(planAddresses.lookAtPuttingOn, { params: { planId }, body }));

/** What can be done with plans and who is on them; each throws a ProblemError when it is refused. */
export function usePlanActions() {
  const refresh = useRefresh();
  // Not waited for: whoever has saved may be on the way to another page already.
  const after = () =>
    void refresh('/plans', '/on-plan', '/clients', '/schedules', '/tideline', '/templates', '/people/');
  return {
    async create(input: PlanInput) {
      const { plan, changeId } = await ask(planAddresses.create, { body: input });
      after();
      sayDone(`The plan “${plan.name}” is there.`, changeId);
      return plan;
    },
    impact: (planId: string, body: PlanChange) => ask(planAddresses.impact, { params: { planId }, body }),
    async change(planId: string, body: PlanChange, follow?: string) {
      const { plan, tasks, changeId } = await ask(planAddresses.change, {
        params: { planId },
        body: { ...body, ...(follow ? { follow } : {}) },
      });
      after();
      sayDone(`${plan.name} is changed. ${saySync(tasks)}`, changeId);
      return plan;
    },
    async archive(planId: string, version: number, archived: boolean) {
      const { plan, changeId } = await ask(planAddresses.archive, { params: { planId }, body: { version, archived } });
      after();
      sayDone(archived ? `${plan.name} is in the archive.` : `${plan.name} is back.`, changeId);
    },
    async putOn(planId: string, name: string, body: PutOnInput, follow: string) {
      const { clients, tasks, changeId } = await ask(planAddresses.putOn, {
        params: { planId },
        body: { ...body, follow },
      });
      after();
      sayDone(`${plural(clients, 'client')} put on ${name}. ${saySync(tasks)}`, changeId);
    },
    impactOfRollingOn: (of: readonly RollingLine[]) =>
      ask(planAddresses.impactOfRollingOn, { body: { clients: of.map(({ id, version }) => ({ id, version })) } }),
    async rollOn(of: readonly RollingLine[], said: string) {
      const { tasks, changeId } = await ask(planAddresses.rollOn, {
        body: { clients: of.map(({ id, version }) => ({ id, version })) },
      });
      after();
      sayDone(`${said} ${saySync(tasks)}`, changeId);
    },
    async gather(planId: string, body: GatherInput, name: string) {
      const { schedules, clients, own, changeId } = await ask(planAddresses.gather, { params: { planId }, body });
      after();
      const others = own > 0 ? `, ${own} with something of their own` : '';
      sayDone(
        `${plural(schedules, 'schedule')} of ${name}${others}; ${plural(clients, 'client')} put on it. No task changed.`,
        changeId,
      );
    },
    impactOfTakingOff: (body: TakeOffInput) => ask(planAddresses.impactOfTakingOff, { body }),
    async takeOff(body: TakeOffInput, said: string) {
      const { tasks, changeId } = await ask(planAddresses.takeOff, { body });
      after();
      sayDone(`${said} ${saySync(tasks)}`, changeId);
    },
    impactOfLeavingOut: (onPlanId: string, body: LeaveOutInput) =>
      ask(planAddresses.impactOfLeavingOut, { params: { onPlanId }, body }),
    async leaveOut(onPlanId: string, body: LeaveOutInput, said: string) {
      const { tasks, changeId } = await ask(planAddresses.leaveOut, { params: { onPlanId }, body });
      after();
      sayDone(`${said} ${saySync(tasks)}`, changeId);
    },
    impactOfAsPlan: (planId: string, schedules: readonly string[], from: string, reach: Reach) =>
      ask(planAddresses.impactOfAsPlan, { params: { planId }, body: { schedules: [...schedules], from, reach } }),
    async asPlan(planId: string, schedules: readonly string[], from: string, said: string, reach?: Reach) {
      const { tasks, changeId } = await ask(planAddresses.asPlan, {
        params: { planId },
        body: { schedules: [...schedules], from, ...(reach ? { reach } : {}) },
      });
      after();
      sayDone(`${said} ${saySync(tasks)}`, changeId);
    },
  };
}
