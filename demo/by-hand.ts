import { dayOfIso, isoOfDay, startedSet } from '../src/core/index.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { captureTask, startTemplate } from '../src/server/tasks/index.ts';
import { Template } from '../src/server/templates/stored/index.ts';
import type { PersonKey } from './people.ts';
import type { TemplateKey } from './templates.ts';

/** What was started by hand, so many days ago or ahead, for which berth-holder. */
const STARTED: readonly {
  template: TemplateKey;
  inDays: number;
  holder: number | null;
  who: PersonKey;
  special?: string;
}[] = [
  { template: 'newHolder', inDays: -96, holder: 41, who: 'kit' },
  { template: 'newHolder', inDays: -40, holder: 47, who: 'kit' },
  {
    template: 'newHolder',
    inDays: 7,
    holder: 52,
    who: 'kit',
    special: 'Arrives by road, no dinghy. Crane 1 is booked for 11:00.',
  },
  { template: 'storm', inDays: -27, holder: null, who: 'joss' },
];

/** What somebody wrote down in one line. */
const CAPTURED: readonly {
  title: string;
  who: PersonKey | null;
  inDays: number;
  minutes: number;
  asset?: string;
  at?: string;
}[] = [
  { title: 'Grit on the fuel dock steps', who: 'wilf', inDays: 0, minutes: 15, asset: 'Fuel dock' },
  { title: 'Bin store gate, hinge', who: null, inDays: 0, minutes: 20 },
  { title: 'Extinguisher 4, recharge', who: 'joss', inDays: -1, minutes: 20, asset: 'Lee Quay' },
  { title: 'Hose reel 3, coupling', who: 'selwyn', inDays: 1, minutes: 30 },
  { title: 'Ring the crane firm', who: 'bram', inDays: 3, minutes: 20, asset: 'Crane 1', at: '10:00' },
  // More than one can do in a week, for the other of the yard to share.
  ...(['A', 'B', 'C', 'D', 'E'] as const).map((row, i) => ({
    ...{ title: `Winter covers, row ${row}`, who: 'bram' as const, inDays: 13 + i, minutes: 240 },
  })),
];

/** Work that no schedule makes. */
export async function makeByHand(
  scope: Scope,
  ids: {
    readonly people: ReadonlyMap<string, string>;
    readonly assets: ReadonlyMap<string | number, { assetId: string; clientId: string | null }>;
    readonly templates: ReadonlyMap<string, string>;
  },
): Promise<void> {
  const calendar = await scope.calendar();
  const personId = (key: PersonKey | null) => (key === null ? null : (ids.people.get(key) ?? null));
  for (const { template: key, inDays, holder, who, special = '' } of STARTED) {
    const template = await scope.one(Template, ids.templates.get(key) ?? '', 'template');
    const on = scope.now.day + inDays;
    const { clientId = null, assetId = null } = holder === null ? {} : (ids.assets.get(holder) ?? {});
    await startTemplate(scope, template.id, {
      on: isoOfDay(on),
      clientId,
      assetId,
      assigneeId: personId(who),
      special,
      parts: startedSet(template, on, calendar, personId(who)).map(({ part, on: day, assigneeId }) => ({
        step: part.key,
        on: isoOfDay(day),
        startTime: part.startTime,
        dueTime: part.dueTime,
        assigneeId,
      })),
    });
  }
  for (const { title, who, inDays, minutes, asset, at = null } of CAPTURED) {
    const on = isoOfDay(dayOfIso(scope.today) + inDays);
    await captureTask(scope, {
      title,
      on,
      dueOn: on,
      startTime: at,
      dueTime: null,
      assigneeId: personId(who),
      clientId: null,
      assetId: asset === undefined ? null : (ids.assets.get(asset)?.assetId ?? null),
      estimateMinutes: minutes,
    });
  }
}
