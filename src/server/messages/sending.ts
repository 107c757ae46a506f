import { KIND_WORDS, MESSAGE_KINDS, type MessageKind } from '../../core/index.ts';
import { type MessageRecord, pathOf } from '../bell/index.ts';
import { reachedAt } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';
import { type Letter, type LetterBand, post } from '../post/index.ts';
import { decide } from './deciding.ts';

/** Lines of a kind that a mail tells: what is gathered over days off; the rest is counted. */
const LINES = 100;

type Line = Pick<MessageRecord, 'id' | 'kind' | 'title' | 'text' | 'taskId' | 'path'>;

/**
 * Mails what may leave by now, each person's in one, in a transaction with the mark that it has gone: after a fall each is
 * there once. What was told since this was done last goes with the next time, so that a burst is one mail.
 * @returns how many mails
 */
export async function mailMessages(scope: Scope, origin: string): Promise<number> {
  const people = await scope.sql<{ personId: string }>(
    `select person_id as "personId" from message where workspace_id = $1 and mail = 'waits' and mail_at <= $2
     group by person_id order by person_id`,
    [scope.instant],
  );
  let sent = 0;
  for (const { personId } of people) sent += (await mailTo(scope, personId, origin)) ? 1 : 0;
  await decide(scope, 'mail');
  return sent;
}

function mailTo(scope: Scope, personId: string, origin: string): Promise<boolean> {
  return scope.transaction(async (tx) => {
    const { name, email } = await reachedAt(tx, personId);
    // Where no address is known nothing is said to have been sent.
    const lines = await tx.sql<Line>(
      `update message set mail = $4, mail_at = null
       where workspace_id = $1 and person_id = $2 and mail = 'waits' and mail_at <= $3
       returning id, kind, title, text, task_id as "taskId", path`,
      [personId, tx.instant, email === null ? 'no' : 'sent'],
    );
    const [first] = lines.sort((a, b) => (a.id < b.id ? -1 : 1));
    if (first === undefined || email === null) return false;
    await post(tx, {
      reason: `message ${first.id}`,
      kind: 'message',
      to: { name, email },
      isPrivate: false,
      letter: letterOf(tx, name, lines, origin),
    });
    return true;
  });
}

/** Lines as a letter: one says what it is in its subject, several are told by kind. */
function letterOf(scope: Scope, name: string, lines: readonly Line[], origin: string): Letter {
  const bands = MESSAGE_KINDS.flatMap((kind): LetterBand[] => {
    const of = lines.filter((line) => line.kind === kind);
    if (of.length === 0) return [];
    return [
      {
        ...{ title: KIND_WORDS[kind].name, about: of.length > 1 ? String(of.length) : '' },
        lines: of.slice(0, LINES).map((line) => ({
          ...{ text: line.title, about: line.text, verb: 'Open', url: `${origin}${pathOf(line)}` },
        })),
        more: of.length > LINES ? { words: `and ${of.length - LINES} more`, url: `${origin}/messages` } : null,
      },
    ];
  });
  return {
    subject: subjectOf(lines),
    from: scope.workspace.name,
    greeting: `Dear ${name},`,
    paragraphs: [],
    bands,
    deed: null,
    after: [`Choose what reaches you, and when: ${origin}/messages`],
  };
}

function subjectOf(lines: readonly Line[]): string {
  const [only, ...rest] = lines;
  if (only !== undefined && rest.length === 0) return `${KIND_WORDS[only.kind].name}: ${only.title}`;
  const counts = new Map<MessageKind, number>();
  for (const { kind } of lines) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return [...counts].map(([kind, count]) => `${count} ${KIND_WORDS[kind].short}`).join(', ');
}
