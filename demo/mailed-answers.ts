import { AnswerPart, AnswerRecord } from '../src/server/answers/index.ts';
import type { Person } from '../src/server/platform/identity/person.ts';
import type { Scope } from '../src/server/platform/scope.ts';

interface Written {
  /** Of which mail to a contact, counted from the newest of its kind; null for one that names no mail of ours. */
  readonly to: { readonly kind: 'notice' | 'task'; readonly place: number } | null;
  readonly daysAgo: number;
  readonly kind: AnswerRecord['kind'];
  readonly text: string;
  readonly file?: string;
}

const QUOTE =
  '\n\nOn Thu, 19 Nov 2026, Tern Quay wrote:\n> Dear berth-holder,\n> we come to check gas and shore power.';
/** The oldest first. */
const WRITTEN: readonly Written[] = [
  {
    ...{ to: { kind: 'notice', place: 0 }, daysAgo: 0.9, kind: 'person' },
    text: `The morning does not suit us, could it be after two? The key hangs behind the companionway steps.${QUOTE}`,
  },
  {
    ...{ to: { kind: 'notice', place: 2 }, daysAgo: 0.8, kind: 'automatic' },
    text: 'I am at sea until 30 November and read no mail. In urgent cases please ring the harbour office.',
  },
  {
    ...{ to: { kind: 'task', place: 1 }, daysAgo: 0.6, kind: 'person' },
    text: 'Renewal came by post only, here is the page. The link would not take it from my old phone.\n-- \nsent from the boat',
    file: 'insurance page 1.pdf',
  },
  {
    ...{ to: null, daysAgo: 0.2, kind: 'person' },
    text: 'Hello, when is the crane free next week? I would like to have the anodes looked at.',
  },
];

interface Sent {
  readonly id: string;
  readonly clientId: string;
  readonly taskId: string | null;
  readonly name: string;
  readonly email: string;
  readonly subject: string;
}

/** What contacts have answered by mail: to a notice and to a task of theirs, by a machine, and one that somebody has to place. */
export async function addMailedAnswers(
  scope: Scope,
  actingAs: (person: Person | null, daysAgo: number) => Scope,
): Promise<void> {
  const mails = await scope.sql<Sent & { kind: string }>(
    `select id, kind, client_id as "clientId", task_id as "taskId", to_name as name, to_email as email, subject from mail
     where workspace_id = $1 and client_id is not null and state <> 'refused' order by id desc`,
  );
  for (const { to, daysAgo, kind, text, file } of WRITTEN) {
    const of = to && mails.filter((mail) => mail.kind === to.kind)[to.place];
    const from = of ?? mails.at(-1);
    if (!from) continue;
    const then = actingAs(null, daysAgo);
    const { id } = await then.insert(AnswerRecord, {
      id: then.newId(),
      ...{ mailId: of?.id ?? null, taskId: of?.taskId ?? null, clientId: of?.clientId ?? null, kind },
      ...{ fromName: from.name, fromEmail: from.email, at: then.instant, awayAt: null, text },
      ...{ subject: of ? `Re: ${of.subject}` : 'Crane next week', messageId: `<${then.newId()}@berths.example>` },
    });
    if (file)
      await then.insert(AnswerPart, {
        ...{ id: then.newId(), answerId: id, position: 0, name: file, size: PAGE.length },
        ...{ bytes: PAGE, fileId: null },
      });
    if (kind === 'person' && of?.taskId)
      await then
        .by({ linkId: '', contactId: '', name: of.name, email: of.email, clientId: of.clientId, taskId: of.taskId })
        .record('task', of.taskId, 'wrote', {});
  }
}

/** A page with nothing on it, as small as one can be. */
const PAGE = Buffer.from(
  '%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj 2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj 3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF\n',
);
