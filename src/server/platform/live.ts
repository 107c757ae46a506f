import type { Request, Response } from 'express';
import type { Logger } from 'pino';
import { LIVE_TOPICS, type Live, liveSchema, STEPS_EVENT, stepsSchema } from '../../contract/index.ts';
import type { SignedIn } from './http/session.ts';
import type { Listener } from './listener.ts';
import { LIVE_CHANNEL } from './scope.ts';
import { STEPS_CHANNEL } from './steps.ts';

const HEARTBEAT_MS = 25_000;
/** Streams that one person may hold, one for each open page; of more, the oldest ends. */
const STREAMS_EACH = 20;
/** Bytes that wait for a browser that doesn't read. */
const MOST_UNREAD = 64 * 1024;

interface Stream {
  readonly workspaceId: string;
  readonly personId: string;
  readonly sessionId: string;
}

/** Server-sent events, fed by what the database tells: any number of server processes may run beside each other. */
export class LiveStream {
  /** In the order in which they were opened. */
  private readonly open = new Map<Response, Stream>();
  private readonly heartbeat = setInterval(() => {
    this.write(null, ': still here\n\n');
    this.endSignedOut().catch((error: unknown) => this.log.warn({ err: error }, 'could not look who has signed out'));
  }, HEARTBEAT_MS);

  constructor(
    private readonly listener: Listener,
    private readonly log: Logger,
  ) {
    listener.on(LIVE_CHANNEL, {
      onNews: (payload) => this.pass(payload),
      // What happened meanwhile was not heard: let every browser look again.
      onGap: () => this.write(null, sse({ topics: [...LIVE_TOPICS], tasks: null, people: null, load: true })),
    });
    // What was not heard of it is followed by the next of it, or by its answer.
    listener.on(STEPS_CHANNEL, { onNews: (payload) => this.passSteps(payload), onGap: () => undefined });
  }

  private pass(payload: string): void {
    const news = JSON.parse(payload) as { workspace: string };
    this.write(news.workspace, sse(liveSchema.parse(news)));
  }

  /** Only to whoever waits for it. */
  private passSteps(payload: string): void {
    const { workspace, person, ...steps } = JSON.parse(payload) as { workspace: string; person: string };
    this.write(workspace, `event: ${STEPS_EVENT}\ndata: ${JSON.stringify(stepsSchema.parse(steps))}\n\n`, person);
  }

  private write(workspaceId: string | null, text: string, personId: string | null = null): void {
    for (const [response, of] of this.open)
      if ((workspaceId === null || of.workspaceId === workspaceId) && (personId === null || of.personId === personId)) {
        // Who doesn't read on asks again when it does: the browser opens a new stream by itself.
        if (response.writableLength > MOST_UNREAD) this.end(response);
        else response.write(text);
      }
  }

  /** Keeps a browser's stream open until it leaves. */
  subscribe(request: Request, response: Response, { workspace, person }: SignedIn): void {
    const own = [...this.open].filter(([, { personId }]) => personId === person.id);
    for (const [oldest] of own.slice(0, Math.max(0, own.length + 1 - STREAMS_EACH))) this.end(oldest);
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-cache, no-transform',
      'X-Accel-Buffering': 'no',
    });
    response.write('retry: 2000\n\n');
    this.open.set(response, { workspaceId: workspace.id, personId: person.id, sessionId: request.sessionID });
    request.on('close', () => this.open.delete(response));
  }

  /** Ends the streams of sessions that are no more; looked at now and then, and at once where one signs out here. */
  async endSignedOut(): Promise<void> {
    const ids = [...new Set([...this.open.values()].map(({ sessionId }) => sessionId))];
    if (ids.length === 0) return;
    const rows = await this.listener.query<{ sid: string }>(
      'select sid from session where sid = any($1::text[]) and expire > now()',
      [ids],
    );
    if (rows === null) return;
    const there = new Set(rows.map(({ sid }) => sid));
    for (const [response, { sessionId }] of this.open) if (!there.has(sessionId)) this.end(response);
  }

  private end(response: Response): void {
    this.open.delete(response);
    response.end();
  }

  close(): void {
    clearInterval(this.heartbeat);
    for (const response of this.open.keys()) response.end();
  }
}

function sse(news: Live): string {
  return `data: ${JSON.stringify(news)}\n\n`;
}
