import type { AddressInfo } from 'node:net';
import type { Logger } from 'pino';
import { SMTPServer } from 'smtp-server';
import type { DataSource } from 'typeorm';

export interface StandIn {
  readonly url: string;
  stop(): Promise<void>;
}

const MOST_BYTES = 25 * 1024 * 1024;

/** Addresses that behave like trouble outside does, to see what becomes of it. */
const TROUBLE: Readonly<Record<string, { readonly code: number; readonly says: string }>> = {
  'refuses.example': { code: 550, says: 'no such address here' },
  'busy.example': { code: 451, says: 'mailbox busy, try again later' },
};

/** A mail server on loopback that takes every mail and lets none leave: its mailbox is what the Post tray shows. */
export async function startMailServer(source: DataSource, log: Logger): Promise<StandIn> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: MOST_BYTES,
    banner: 'Jolly Rota stand-in',
    onRcptTo({ address }, _session, done) {
      const trouble = TROUBLE[address.split('@')[1]?.toLowerCase() ?? ''];
      done(trouble && Object.assign(new Error(trouble.says), { responseCode: trouble.code }));
    },
    onData(stream, _session, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        keep(source, Buffer.concat(chunks).toString('utf8')).then(() => done(), done);
      });
    },
  });
  server.on('error', (error) => log.warn({ err: error }, 'the mail stand-in had trouble'));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  const { port } = server.server.address() as AddressInfo;
  return {
    url: `smtp://127.0.0.1:${port}`,
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

/** A mail that comes again under its Message-ID is the same one. */
async function keep(source: DataSource, raw: string): Promise<void> {
  const [, messageId] = /^message-id:\s*(\S+)/im.exec(raw) ?? [];
  if (!messageId) throw Object.assign(new Error('a mail needs a Message-ID'), { responseCode: 554 });
  await source.query(
    `insert into received_mail (message_id, received_at, times, raw) values ($1, clock_timestamp(), 1, $2)
     on conflict (message_id) do update set times = received_mail.times + 1`,
    [messageId, raw],
  );
}
