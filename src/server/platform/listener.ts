import pg from 'pg';
import type { Logger } from 'pino';

const RECONNECT_MS = 1000;

interface Handlers {
  readonly onNews: (payload: string) => void;
  /** Called when it listens again after it did not: whatever was told meanwhile was not heard. */
  readonly onGap: () => void;
}

/** A connection that hears what the database tells (LISTEN), and goes on when the database comes back after it was away. */
export class Listener {
  private readonly channels = new Map<string, Handlers>();
  private client: pg.Client | null = null;
  private closed = false;

  constructor(
    private readonly databaseUrl: string,
    private readonly log: Logger,
    private readonly reconnectMs = RECONNECT_MS,
  ) {}

  /** Before it begins to listen. */
  on(channel: string, handlers: Handlers): void {
    this.channels.set(channel, handlers);
  }

  get isListening(): boolean {
    return this.client !== null;
  }

  /** @throws where the database can't be reached: nothing goes on by itself then */
  async listen(): Promise<void> {
    const client = new pg.Client({ connectionString: this.databaseUrl });
    client.on('notification', ({ channel, payload }) => this.channels.get(channel)?.onNews(payload ?? ''));
    client.on('error', (error) => this.log.warn({ err: error }, 'what the database tells is interrupted'));
    // One that never got as far ends too: whoever tried it tries again, and nobody beside.
    client.on('end', () => {
      if (this.client === client) this.listenAgain();
    });
    try {
      await client.connect();
      for (const channel of this.channels.keys()) await client.query(`listen ${channel}`);
    } catch (error) {
      await client.end();
      throw error;
    }
    if (this.closed) return client.end();
    this.client = client;
  }

  /** Asks by the same connection; null while it does not listen. */
  async query<Row extends pg.QueryResultRow>(text: string, params: readonly unknown[]): Promise<Row[] | null> {
    return this.client === null ? null : (await this.client.query<Row>(text, [...params])).rows;
  }

  private listenAgain(): void {
    this.client = null;
    if (this.closed) return;
    setTimeout(() => {
      if (this.closed) return;
      this.listen()
        .then(() => {
          for (const { onGap } of this.channels.values()) onGap();
        })
        .catch((error: unknown) => {
          this.log.warn({ err: error }, 'the database is still away');
          this.listenAgain();
        });
    }, this.reconnectMs);
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.client?.end();
  }
}
