import { afterAll, beforeAll } from 'vitest';
import type { OnPlanLine, PlanInput, PlanItemInput, PlanOfClient, ServicePlan } from '../../contract/index.ts';
import { PLAIN_TIMING, parsePhrase } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from './test-server.ts';
import { newTemplate, ownTask } from './work.ts';

export const TODAY = '2026-11-24';
export const rule = (phrase: string) => parsePhrase(phrase, { start: '2026-01-01' });
const USUAL = { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: false, cover: 'deputy' } as const;
export const item = (
  key: string,
  templateId: string,
  phrase: string,
  rest: Partial<PlanItemInput> = {},
): PlanItemInput => ({
  ...{ key, templateId, counts: 'joining', after: { amount: 0, unit: 'day' }, recurrence: rule(phrase) },
  timing: { ...PLAIN_TIMING, appears: { amount: -1, unit: 'workingDay' } },
  ...{ overlap: { kind: 'add' }, assignment: USUAL, estimateMinutes: null, each: 'client', ...rest },
});
export const inputOf = ({ name, note, rollsOn, items }: ServicePlan): PlanInput => ({
  ...{ name, note, rollsOn },
  items: items.map(({ template: _t, phrase: _p, who: _w, minutes: _m, ...one }) => one),
});
export const ids = (clients: readonly { id: string }[]) => clients.map(({ id }) => ({ clientId: id }));

/** A server of a test file's own with two templates, and what its tests on service plans do again and again. */
export function usingPlans() {
  const at = {} as { server: TestServer; ines: Agent; gas: string; walk: string };
  beforeAll(async () => {
    at.server = await testServer();
    at.ines = await at.server.browser('Ines Calloway');
    at.gas = await newTemplate(at.ines, {
      name: 'Gas',
      titlePattern: 'Gas {client}',
      estimateMinutes: 60,
      steps: [ownTask('paper', 2)],
    });
    at.walk = await newTemplate(at.ines, {
      name: 'Look aboard',
      titlePattern: 'Look aboard {asset}',
      estimateMinutes: 20,
    });
  });
  afterAll(() => at.server.stop());

  const twoItems = (): PlanItemInput[] => [
    item('gas', at.gas, 'first Tuesday of each month'),
    item('walk', at.walk, '15th of each month, or the working day after', { each: 'asset' }),
  ];
  let made = 0;
  async function newPlan(items = twoItems(), rest: Partial<PlanInput> = {}): Promise<ServicePlan> {
    const input = { name: `Plan ${++made}`, note: '', rollsOn: 'itself', items, ...rest };
    return (await at.ines.post('/api/plans').send(input).expect(200)).body.plan;
  }
  /** Clients of the demo whom somebody looks after, others each time. */
  let asked = 0;
  async function freeClients(count: number): Promise<{ id: string; name: string }[]> {
    const all = await at.server.source.query<{ id: string; name: string }[]>(
      'select id, name from client where archived_at is null and usual_person_id is not null order by name',
    );
    asked += count;
    return all
      .concat(all)
      .slice((asked - count) % all.length)
      .slice(0, count);
  }
  const putOn = (plan: ServicePlan, clients: object[], from = '2026-12-01', path = '') =>
    at.ines.post(`/api/plans/${plan.id}/clients${path}`).send({ version: plan.version, from, clients });
  const tasksOf = (planId: string): Promise<{ title: string; on: string; client: string; who: string | null }[]> =>
    at.server.source.query(
      `select t.title, t.work_on as "on", c.name as client, p.name as who from task t join schedule s on s.id = t.schedule_id
       join on_plan o on o.id = s.on_plan_id join client c on c.id = t.client_id left join person p on p.id = t.assignee_id
       where o.plan_id = $1 order by t.work_on, c.name, t.title`,
      [planId],
    );
  const clientsOf = async (planId: string, query: object = {}) =>
    (await at.ines.get(`/api/plans/${planId}/clients`).query(query).expect(200)).body as {
      clients: OnPlanLine[];
      more: string | null;
      counts: { all: number; own: number; changes: number };
    };
  const plansOf = async (clientId: string, planId: string): Promise<PlanOfClient[]> =>
    ((await at.ines.get(`/api/clients/${clientId}/plans`).expect(200)).body.plans as PlanOfClient[]).filter(
      ({ plan }) => plan.id === planId,
    );
  const undo = (changeId: string) => at.ines.post(`/api/changes/${changeId}/undo`).send({});
  const change = (plan: ServicePlan, items: PlanItemInput[], from = TODAY, path = '') => {
    const body = { version: plan.version, from, plan: { ...inputOf(plan), items } };
    return path === ''
      ? at.ines.put(`/api/plans/${plan.id}`).send(body)
      : at.ines.post(`/api/plans/${plan.id}${path}`).send(body);
  };
  return { at, twoItems, newPlan, freeClients, putOn, tasksOf, clientsOf, plansOf, undo, change };
}
