import type { OwnOfClient, PlanInput } from '../src/contract/index.ts';
import { isoOfDay, PLAIN_TIMING, parsePhrase } from '../src/core/index.ts';
import { Client } from '../src/server/clients/index.ts';
import { createPlan, putOn } from '../src/server/plans/index.ts';
import { Person } from '../src/server/platform/identity/person.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { berthHolders } from './berth-holders.ts';
import type { TemplateKey } from './templates.ts';

interface DemoItem {
  readonly template: TemplateKey;
  readonly phrase: string;
  readonly counts?: 'joining' | 'plan';
  readonly who?: 'nobody';
}

interface DemoPlan {
  readonly name: string;
  readonly note: string;
  readonly rollsOn: 'itself' | 'asks';
  readonly items: readonly DemoItem[];
}

export const PLANS: readonly DemoPlan[] = [
  {
    name: 'Resident berth',
    note: 'What every berth-holder has who stays the year.',
    rollsOn: 'itself',
    items: [
      { template: 'meterReading', phrase: 'last working day of every quarter' },
      { template: 'lines', phrase: 'every 3 months on the 15th, or the working day after' },
      { template: 'renewalTalk', phrase: 'first working day of February', who: 'nobody' },
      { template: 'anodes', phrase: 'yearly on the second Wednesday of April', who: 'nobody' },
    ],
  },
  {
    name: 'Winter ashore',
    note: 'Out of the water from autumn to spring.',
    rollsOn: 'asks',
    items: [
      { template: 'lines', phrase: 'first Tuesday of each month, closed in April to September' },
      { template: 'anodes', phrase: 'yearly on the last Wednesday of February', who: 'nobody' },
    ],
  },
];

/** A plan as a manager would write it. @param idOf of a template, by its key */
export function planInput({ name, note, rollsOn, items }: DemoPlan, idOf: (key: TemplateKey) => string): PlanInput {
  return {
    ...{ name, note, rollsOn },
    items: items.map(({ template, phrase, counts = 'joining', who }) => ({
      ...{ key: template, templateId: idOf(template), counts, after: { amount: 0, unit: 'day' } },
      recurrence: parsePhrase(phrase, { start: '2026-01-01' }),
      timing: { ...PLAIN_TIMING, appears: { amount: -1, unit: 'workingDay' } },
      overlap: { kind: 'add' },
      assignment:
        who === 'nobody'
          ? { v: 1, kind: 'nobody' }
          : { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: false, cover: 'deputy' },
      estimateMinutes: null,
      each: 'client',
    })),
  };
}

/** What some of them have of their own, by their place in the list. */
const OWN: Readonly<Record<number, readonly OwnOfClient[]>> = {
  3: [{ item: 'lines', recurrence: parsePhrase('every 2 months on the first Thursday', { start: '2026-01-01' }) }],
  8: [{ item: 'lines', estimateMinutes: 25 }],
  11: [{ item: 'renewalTalk', leftOut: 'the agreement runs to 2029' }],
  17: [
    { item: 'lines', recurrence: parsePhrase('every 3 months on the last Monday', { start: '2026-01-01' }) },
    { item: 'anodes', leftOut: 'has the yard at Penvoss do it' },
  ],
  22: [{ item: 'meterReading', leftOut: 'no shore power on this berth' }],
};

/** Two plans, and the berth-holders who are on them, each group of them since another day. */
export async function addPlans(
  scope: Scope,
  {
    people,
    templates,
  }: { readonly people: ReadonlyMap<string, string>; readonly templates: ReadonlyMap<string, string> },
  actingAs: (person: Person, daysAgo: number) => Scope,
): Promise<void> {
  const ines = await scope.one(Person, people.get('ines') as string, 'person');
  const by = actingAs(ines, 0);
  const clients = new Map((await scope.find(Client)).map(({ id, name }) => [name, id]));
  const holders = berthHolders().map(({ name }) => clients.get(name) as string);
  const [resident, ashore] = PLANS.map((plan) => planInput(plan, (key) => templates.get(key) as string));
  if (!resident || !ashore) throw new Error('There are two plans.');
  const { plan: berth } = await createPlan(by, resident);
  const { plan: winter } = await createPlan(by, ashore);
  for (const month of [0, 1, 2])
    await putOn(by, berth.id, {
      ...{ version: berth.version, from: isoOfDay(scope.now.day - 23 - 31 * month), start: null },
      clients: holders
        .slice(0, 32)
        .flatMap((clientId, i) => (i % 3 === month ? [{ clientId, own: ownInput(OWN[i] ?? []) }] : [])),
    });
  await putOn(by, winter.id, {
    ...{ version: winter.version, from: isoOfDay(scope.now.day - 40), start: null },
    clients: holders.slice(32, 45).map((clientId) => ({ clientId, own: [] })),
  });
}

const ownInput = (own: readonly OwnOfClient[]) => own.map((one) => ({ ...one, assetId: one.assetId ?? null }));
