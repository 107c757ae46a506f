import type { AddressInfo } from 'node:net';
import type { Logger } from 'pino';
import { SMTPServer } from 'smtp-server';
import type { DataSource } from 'typeorm';
import { answerKey } from '../../core/index.ts';
import type { Inbox } from '../answers/index.ts';

export interface StandIn {
  readonly url: string;
  stop(): Promise<void>;
}

const MOST_BYTES = 25 * 1024 * 1024;

const NOT_HERE = { code: 550, says: 'no such address here' } as const;

/** Addresses that behave like trouble outside does, to see what becomes of it. */
const TROUBLE: Readonly<Record<string, { readonly code: number; readonly says: string }>> = {
  'refuses.example': { code: 550, says: 'no such address here' },
  'busy.example': { code: 451, says: 'mailbox busy, try again later' },
};

interface MailServerParts {
  readonly source: DataSource;
  readonly log: Logger;
  /** What takes answers to our mails; null where none are taken. */
  readonly inbox: Inbox | null;
  /** Where it listens on loopback; 0 for any port that is free. */
  readonly port: number;
  /** Whether it stands in for the world outside, and takes every other mail too. */
  readonly isStandIn: boolean;
}

/**
 * A mail server on loopback. As the stand-in it takes every mail and lets none leave: its mailbox is what the Post tray shows.
 * What comes to the address for answers goes to the inbox, from there or as a real mail server hands it in.
 */
export async function startMailServer({ source, log, inbox, port, isStandIn }: MailServerParts): Promise<StandIn> {
  const isForUs = async (address: string): Promise<boolean> => (await inbox?.takes(address)) ?? false;
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: MOST_BYTES,
    banner: isStandIn ? 'Jolly Rota stand-in' : 'Jolly Rota',
    onRcptTo({ address }, _session, done) {
      isForUs(address)
        .then((isOurs) => {
          if (isOurs) return done();
          const trouble = isStandIn ? TROUBLE[address.split('@')[1]?.toLowerCase() ?? ''] : NOT_HERE;
          done(trouble && Object.assign(new Error(trouble.says), { responseCode: trouble.code }));
        })
        .catch(done);
    },
    onData(stream, { envelope }, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        const raw = Buffer.concat(chunks);
        const to = envelope.rcptTo.map(({ address }) => address);
        const from = envelope.mailFrom === false ? '' : envelope.mailFrom.address;
        const isAnswer = inbox !== null && to.some((address) => answerKey(address, inbox.mailbox) !== null);
        const taken = isAnswer ? inbox.receive(raw, { from, to }) : keep(source, raw.toString('utf8'));
        taken.then(
          () => done(),
          (error: unknown) => done(troubleOf(error, log)),
        );
      });
    },
  });
  server.on('error', (error) => log.warn({ err: error }, 'the mail server on loopback had trouble'));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  const { port: listens } = server.server.address() as AddressInfo;
  return {
    url: `smtp://127.0.0.1:${listens}`,
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

/** What went wrong as a mail server says it: what is not said to be for good is tried again (RFC 5321, section 4.2.1). */
function troubleOf(error: unknown, log: Logger): Error {
  if (error instanceof Error && 'responseCode' in error) return error;
  log.warn({ err: error }, 'a mail could not be taken, and is to come again');
  return Object.assign(new Error('something went wrong here: try again later'), { responseCode: 451 });
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
