import type { LetterInput } from '../src/contract/index.ts';
import { dayOfIso, isoOfDay, type LetterBlock } from '../src/core/index.ts';
import { addLetter, needNone, sendNotices, writeNotices } from '../src/server/notices/index.ts';
import { Person } from '../src/server/platform/identity/person.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { changeTasks } from '../src/server/tasks/index.ts';

const bold = (text: string) => ({ text, bold: true });
const paragraph = (...runs: LetterBlock['runs'][number][]): LetterInput['body'][number] => ({
  kind: 'paragraph',
  runs,
});
const said = (text: string) => paragraph({ text });

/** What the harbour office sends before somebody comes aboard. */
export const LETTERS: readonly LetterInput[] = [
  {
    ...{ name: 'Boarding notice', workType: 'routine', language: 'en-GB' },
    subject: 'Coming aboard {asset}, {place}',
    body: [
      said('Dear {contact},'),
      said('Your berth agreement asks for a check of gas and shore power. We will come aboard for it:'),
      paragraph({ text: 'When: ' }, bold('{date}'), { text: ', {window}' }),
      said('Who comes: {person}'),
      said('Why: {reason}, {rule}'),
      said('You need not be there. Before we come, please'),
      { kind: 'bullet', runs: [{ text: 'leave the gas locker and the shore-power socket free,' }] },
      { kind: 'bullet', runs: [{ text: 'leave a key at the office if you lock the boat.' }] },
      said('If the day does not suit you, please {answer}.'),
      said('{signed}\nHarbour Office, Tern Quay'),
    ],
  },
  {
    ...{ name: 'Before you leave the berth', workType: 'departure', language: 'en-GB' },
    subject: 'Leaving berth: we look at {asset} on {date}',
    body: [
      said('Dear {contact},'),
      said('before {asset} leaves {place} we look at lines, fenders and meters with you: on {date}, {window}.'),
      said('{person} comes. If the day does not suit you, please {answer}.'),
      said('{signed}\nHarbour Office, Tern Quay'),
    ],
  },
  {
    ...{ name: 'Besuch an Bord', workType: 'routine', language: 'de-DE' },
    subject: 'Unser Besuch an Bord der {asset}',
    body: [
      said('Guten Tag {contact},'),
      said('nach Ihrem Liegeplatzvertrag prüfen wir Gas und Landstrom an Bord.'),
      paragraph({ text: 'Wir kommen am ' }, bold('{date}'), { text: ', {window} ({person}).' }),
      said('{signed}\nHarbour Office, Tern Quay'),
    ],
  },
];

interface Visit {
  readonly id: string;
  readonly version: number;
  readonly on: string;
}

/** Notices in every state there is: mailed, posted, by hand, written and lying there, for another day, not needed, not written. */
export async function addNotices(
  scope: Scope,
  people: ReadonlyMap<string, string>,
  as: (person: Person, daysAgo: number) => Scope,
): Promise<void> {
  const [ines] = await scope.find(Person, { id: people.get('ines') as string });
  if (!ines) throw new Error('Nobody writes the letters.');
  const earlier = as(ines, 40);
  for (const letter of LETTERS) await addLetter(earlier, letter);
  const [letter] = await scope.sql<{ id: string; version: number }>(
    `select id, version from notice_letter where workspace_id = $1 and name = 'Boarding notice'`,
  );
  const visits = await scope.sql<Visit>(
    `select t.id, t.version, t.work_on as "on" from task t
     join work_content c on c.workspace_id = t.workspace_id and c.id = t.content_id
     where t.workspace_id = $1 and t.client_id is not null and t.state = 'open' and t.step_key = '' and t.assignee_id is not null
       and c.work_type = 'routine' and t.work_on > $2::date order by t.work_on, t.start_time, t.id`,
    [scope.today],
  );
  if (!letter || visits.length < 14) return;
  const write = (of: readonly Visit[], way: string, daysAgo: number, mail = false) => {
    const then = as(ines, daysAgo);
    return writeNotices(then, {
      ...{ letterId: letter.id, letterVersion: letter.version, issuedOn: then.today, mail },
      visits: of.map(({ id, version }) => ({ taskId: id, version, way, evenLate: true })),
    });
  };
  const idsOf = async (batchId: string): Promise<string[]> => {
    const rows = await scope.sql<{ id: string }>('select id from notice where workspace_id = $1 and batch_id = $2', [
      batchId,
    ]);
    return rows.map(({ id }) => id);
  };
  const [byMail, byPost, byHand, lying, moved, none] = [
    visits.slice(0, 2),
    visits.slice(3, 4),
    visits.slice(4, 5),
    visits.slice(2, 3),
    visits.slice(12, 13),
    visits.slice(13, 14),
  ];
  await write(byMail, 'by mail', 5, true);
  for (const [of, way] of [
    [byPost, 'by post'],
    [byHand, 'by hand'],
  ] as const) {
    const { batchId } = await write(of, way, 5);
    await sendNotices(as(ines, 5), { notices: await idsOf(batchId), on: as(ines, 5).today });
  }
  await write(lying, 'by post', 1);
  await write(moved, 'by mail', 1, true);
  for (const { id, on } of moved)
    await changeTasks(as(ines, 0), {
      tasks: [{ id, version: 1 }],
      deed: { kind: 'moveTo', on: isoOfDay(dayOfIso(on) + 1) },
    });
  await needNone(as(ines, 1), { tasks: none.map(({ id }) => id), reason: 'settled by telephone' });
}
