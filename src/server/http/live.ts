import type { Request, Response } from 'express';
import pg from 'pg';
import type { Logger } from 'pino';
import { liveSchema } from '../../contract/index.ts';
import { LIVE_CHANNEL } from '../scope.ts';

const HEARTBEAT_MS = 25_000;
const RECONNECT_MS = 1000;

/** Server-sent events, fed by LISTEN/NOTIFY: any number of server processes may run beside each other. */
export class LiveStream {
  private readonly open = new Map<Response, string>();
  private listener: pg.Client | null = null;
  private closed = false;
  private readonly heartbeat = setInterval(() => this.write(null, ': still here\n\n'), HEARTBEAT_MS);

  constructor(
    private readonly databaseUrl: string,
    private readonly log: Logger,
  ) {}

  /** Listens, and goes on listening when the database comes back after it was away. */
  async listen(): Promise<void> {
    const client = new pg.Client({ connectionString: this.databaseUrl });
    client.on('notification', ({ payload }) => this.pass(payload ?? ''));
    client.on('error', (error) => this.log.warn({ err: error }, 'live news interrupted'));
    client.on('end', () => this.listenAgain());
    await client.connect();
    await client.query(`listen ${LIVE_CHANNEL}`);
    this.listener = client;
  }

  private listenAgain(): void {
    if (this.closed) return;
    setTimeout(() => {
      if (this.closed) return;
      this.listen()
        // What happened meanwhile was not heard: let every browser look again.
        .then(() => this.write(null, sse({ topics: ['tasks', 'schedules', 'templates', 'runs'] })))
        .catch((error: unknown) => {
          this.log.warn({ err: error }, 'the database is still away');
          this.listenAgain();
        });
    }, RECONNECT_MS);
  }

  private pass(payload: string): void {
    const news = JSON.parse(payload) as { workspace: string };
    this.write(news.workspace, sse(liveSchema.parse(news)));
  }

  private write(workspaceId: string | null, text: string): void {
    for (const [response, of] of this.open) if (workspaceId === null || of === workspaceId) response.write(text);
  }

  /** Keeps a browser's stream open until it leaves. */
  subscribe(request: Request, response: Response, workspaceId: string): void {
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-cache, no-transform',
      'X-Accel-Buffering': 'no',
    });
    response.write('retry: 2000\n\n');
    this.open.set(response, workspaceId);
    request.on('close', () => this.open.delete(response));
  }

  async close(): Promise<void> {
    this.closed = true;
    clearInterval(this.heartbeat);
    for (const response of this.open.keys()) response.end();
    await this.listener?.end();
  }
}

function sse(news: { readonly topics: readonly string[] }): string {
  return `data: ${JSON.stringify({ topics: news.topics })}\n\n`;
}
