import { isoOfDay, PLAIN_TIMING, parsePhrase, sayDate } from '../src/core/index.ts';
import { addressees, sendAsk } from '../src/server/client-links/asking.ts';
import { ClientLink } from '../src/server/client-links/index.ts';
import type { Contact } from '../src/server/clients/index.ts';
import { StoredFile } from '../src/server/files/stored/index.ts';
import { Person } from '../src/server/platform/identity/person.ts';
import type { ByLink, Scope } from '../src/server/platform/scope.ts';
import { createSchedules } from '../src/server/schedules/index.ts';
import { answerDemand, finishTask } from '../src/server/tasks/index.ts';
import { lockedTask, type Task, TaskRecord } from '../src/server/tasks/stored/index.ts';
import { sendBackTask, signTask } from '../src/server/tasks/work.ts';
import type { DemoFiles } from './pictures.ts';

/** What became of an insurance certificate that a berth-holder was asked for: days from the day of the demo. */
interface Fate {
  /** Place in the list of berth-holders. */
  readonly holder: number;
  readonly due: number;
  readonly asked?: number;
  readonly before?: number;
  readonly after?: number;
  readonly opened?: number;
  /** Answered in part; sent as a whole; sent back; signed off. */
  readonly begun?: number;
  readonly sent?: number;
  readonly back?: number;
  readonly signed?: number;
  /** Has no mail address, so nothing could go. */
  readonly isUnreached?: true;
}

const FATES: readonly Fate[] = [
  { holder: 45, due: 10, asked: -4 },
  { holder: 46, due: 6, asked: -8, opened: -7, begun: -7 },
  { holder: 47, due: 2, asked: -12, before: -1, opened: -1 },
  { holder: 48, due: -4, asked: -18, before: -7, after: -2 },
  { holder: 49, due: 4, asked: -10, opened: -1, sent: -1 },
  { holder: 50, due: 5, asked: -9, opened: -3, sent: -3, back: -1 },
  { holder: 51, due: 8, isUnreached: true },
  { holder: 52, due: -9, asked: -20, opened: -12, sent: -12, signed: -10 },
];

/** Days before it is due on which it appears, and its client is asked; so long ago the schedules were made. */
const SEEN_BEFORE = 14;
const MADE_AGO = 20;

interface Around {
  readonly people: ReadonlyMap<string, string>;
  readonly templates: ReadonlyMap<string, string>;
  readonly assets: ReadonlyMap<string | number, { readonly assetId: string; readonly clientId: string | null }>;
  readonly files: DemoFiles;
  readonly origin: string;
}

/** The certificates of some berth-holders, each asked for by mail, in every state there is. */
export async function addClientTasks(
  scope: Scope,
  { people, templates, assets, files, origin }: Around,
  as: (person: Person | null, daysAgo: number) => Scope,
): Promise<void> {
  const person = (key: string) => scope.one(Person, people.get(key) as string, 'person');
  const [ines, oskar] = [await person('ines'), await person('oskar')];
  for (const fate of FATES) {
    const of = assets.get(fate.holder);
    if (!of || of.clientId === null) throw new Error(`There is no berth-holder ${fate.holder}.`);
    const { assetId, clientId } = of;
    if (fate.isUnreached)
      await scope.sql(`update contact set email = '' where workspace_id = $1 and client_id = $2`, [clientId]);
    const due = scope.now.day + fate.due;
    await createSchedules(as(ines, MADE_AGO), async () => [
      {
        ...{ templateId: templates.get('insurance') as string, clientId, assetId },
        assignment: { v: 1, kind: 'client' },
        recurrence: parsePhrase(`yearly on ${sayDate(due).replace(/ \d+$/, '')}`, { start: isoOfDay(due) }),
        timing: { ...PLAIN_TIMING, appears: { amount: -SEEN_BEFORE, unit: 'day' } },
        overlap: { kind: 'add' },
        ...{ pauses: [], exceptions: [], revisions: [] },
      },
    ]);
    const [made] = await scope.find(TaskRecord, { clientId, assetId, dueOn: isoOfDay(due) });
    if (!made) throw new Error(`No certificate of berth-holder ${fate.holder} is asked for.`);
    await play(fate, made.id, clientId);
  }

  async function play(fate: Fate, id: string, clientId: string): Promise<void> {
    const [contact] = await addressees(scope, clientId);
    if (!contact) return;
    for (const [kind, day] of [
      ['asked', fate.asked],
      ['before', fate.before],
      ['after', fate.after],
    ] as const)
      if (day !== undefined) await ask(id, clientId, contact, kind, day);
    const [link] = await scope.find(ClientLink, { taskId: id });
    if (fate.opened !== undefined && link)
      await scope.save(ClientLink, link.id, { openedAt: as(null, -fate.opened).instant });
    const linked: ByLink = {
      ...{ linkId: link?.id ?? '', contactId: contact.id, clientId, taskId: id },
      ...{ name: contact.name, email: contact.email },
    };
    const isoAfter = isoOfDay(scope.now.day + fate.due + 365);
    const answer = (day: number, demand: string, value: string) =>
      answerDemand(as(null, -day).by(linked), id, { demand, value, remark: '' });
    if (fate.begun !== undefined) await answer(fate.begun, 'covers-until', isoAfter);
    if (fate.sent !== undefined) {
      await attach(id, linked.name, fate.sent);
      await answer(fate.sent, 'covers-until', isoAfter);
      await answer(fate.sent, 'aboard', 'No');
      await finishTask(as(null, -fate.sent).by(linked), id);
    }
    if (fate.back !== undefined) {
      await sendBackTask(as(oskar, -fate.back), id, 'The page that names the sum for damage to others is missing.');
      await ask(id, clientId, contact, 'sentBack', fate.back);
    }
    if (fate.signed !== undefined) await signTask(as(oskar, -fate.signed), id);
  }

  async function ask(
    id: string,
    clientId: string,
    contact: Pick<Contact, 'id' | 'name' | 'email'>,
    kind: 'asked' | 'before' | 'after' | 'sentBack',
    day: number,
  ): Promise<void> {
    await as(null, -day).transaction(async (tx) => {
      const task: Task = await lockedTask(tx, id);
      await sendAsk(tx, {
        ...{ clientId, contact, tasks: [{ task, kind }], opens: 'one', needsCode: false, origin },
      });
    });
  }

  async function attach(taskId: string, byContact: string, day: number): Promise<void> {
    const [paper] = files.papers;
    if (!paper) throw new Error('The demo has papers.');
    await scope.insert(StoredFile, {
      ...{ ...paper, name: 'certificate.pdf', id: scope.newId(), uploadKey: scope.newId() },
      ...{ templateId: null, taskId, demandKey: 'certificate', isKept: false },
      ...{ uploadedAt: as(null, -day).instant, uploadedBy: null, byContact, removedAt: null },
    });
  }
}
