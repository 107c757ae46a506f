import type { TestServer } from './test-server.ts';

/** The newest mail to an address, as it waits or has left; of one task where the queue may ask for others meanwhile. */
export async function mailTo(server: TestServer, email: string, taskId: string | null = null) {
  const [mail] = await server.source.query<
    { id: string; subject: string; text: string; state: string; reason: string }[]
  >(
    `select id, subject, text, state, reason from mail
     where to_email = $1 and ($2::uuid is null or task_id = $2) order by id desc limit 1`,
    [email, taskId],
  );
  if (!mail) throw new Error(`No mail goes to ${email}.`);
  return mail;
}

/** What stands at the end of the link in a mail. */
export function tokenIn(text: string): string {
  const [, token] = /#(\S+)/.exec(text) ?? [];
  if (!token) throw new Error('This mail holds no link.');
  return token;
}
