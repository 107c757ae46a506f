import { EventEmitter } from 'node:events';
import { setTimeout as after } from 'node:timers/promises';
import {
  type JobHelpers,
  type Runner,
  run,
  type Task,
  type WorkerEvents,
  Logger as WorkerLogger,
} from 'graphile-worker';
import type pg from 'pg';
import type { Logger } from 'pino';
import { type DataSource, IsNull, Not } from 'typeorm';
import { instantOf, SERVER_JOBS, type ServerJob } from '../core/index.ts';
import { Inbox, sweepAnswerParts, type TriedOut, tryOut } from './answers/index.ts';
import { gapsToTell } from './availability/index.ts';
import { askForBackup, carryOutBackup, isBackupDue } from './backup/index.ts';
import { isListingDue, makeLists, poolsToTell } from './calls/index.ts';
import { askOwed } from './client-links/index.ts';
import { type FileStore, sweepFiles } from './files/stored/index.ts';
import {
  areSummariesOwed,
  hear,
  pushMessages,
  sendSummaries,
  sweepMessages,
  tellNoted,
  tellTrouble,
} from './messages/index.ts';
import { noticesToTell } from './notices/index.ts';
import { sweepArrivals } from './platform/arrival.ts';
import type { Clock } from './platform/clock.ts';
import { untilDatabaseAnswers } from './platform/db/outage.ts';
import type { Person } from './platform/identity/person.ts';
import { Workspace } from './platform/identity/workspace.ts';
import { Scope } from './platform/scope.ts';
import { type MailServer, Postman } from './post/index.ts';
import { pushKeys } from './push/index.ts';
import { letGoWhatIsDue } from './retention/index.ts';
import { carryOutFill, Run, runMaking } from './runs/index.ts';
import { type StandIn, startMailServer } from './standins/index.ts';
import { compactEndedCounts } from './tasks/stored/index.ts';
import { deliverWebhooks, noteLate, sweepDeliveries } from './webhooks/index.ts';

/** How often it is looked whether something was done of which somebody is to hear. */
const TELL_EVERY_MS = 1_500;
/** What breaks a queue down may still be there: it is not begun again on the spot. */
const REST_MS = 1_000;
/** Failures in a row after which somebody is told of them. */
const TOLD_AFTER = 3;
const isServerJob = (job: string): job is ServerJob => SERVER_JOBS.some((one) => one === job);
/** Whom mails are from that never leave this machine. */
const STAND_IN_FROM = 'Jolly Rota <rota@jolly-rota.example>';
const STAND_IN_MAILBOX = 'answers@jolly-rota.example';

/** What features that stand above messages have to tell in the morning. */
const MORNINGS = [noticesToTell, poolsToTell, gapsToTell] as const;

interface MakePayload {
  readonly workspaceId: string;
  readonly why: Run['why'];
}

interface OfWorkspacePayload {
  readonly workspaceId: string;
}

interface BackupPayload {
  readonly workspaceId: string;
  readonly backupId: string;
}

interface FillPayload {
  readonly workspaceId: string;
  readonly runId: string;
}

export interface WorkerParts {
  readonly source: DataSource;
  readonly pool: pg.Pool;
  readonly clock: Clock;
  readonly log: Logger;
  readonly files: FileStore;
  /** The folder in which backups lie. */
  readonly backups: string;
  /** Whether programs inside our own network are told of what happens. */
  readonly tellsInside: boolean;
  /** Scheme and host under which this server is reached: where the links of its mails lead. */
  readonly origin: string;
  /** The mail server outside; null where the stand-in takes all. */
  readonly mail: Pick<MailServer, 'url' | 'from'> | null;
  /** Where answers come to, and the port on loopback that they are handed in at; null for what comes with the stand-in. */
  readonly inbound: Inbound | null;
}

export interface Inbound {
  /** “answers@rota.example” */
  readonly mailbox: string;
  readonly port: number;
}

export interface RunningWorker {
  stop(): Promise<void>;
}

/**
 * The job queue. Each minute it looks which workspaces have reached their time of day; each start-up makes what is owed,
 * so that a server that was down catches up at once. Where the queue itself breaks down, as when the database goes in the
 * very moment that a job is over, it is begun again.
 */
export async function startWorker(parts: WorkerParts): Promise<RunningWorker> {
  let isStopped = false;
  const { source, log, origin } = parts;
  const post = await startPost(parts);
  const postman = new Postman(source, { ...post.outside, isStandIn: parts.mail === null, origin }, log);
  const begin = async (): Promise<Runner> => {
    // Its promise may never settle when it goes down: that it begins to is what counts.
    const events: WorkerEvents = new EventEmitter();
    const goesDown = new Promise<string>((resolve) => {
      events.once('pool:gracefulShutdown', ({ message }) => resolve(message));
      events.once('pool:forcefulShutdown', ({ message }) => resolve(message));
    });
    const runner = await startRunner(parts, postman, post, events);
    void goesDown.then((why) => {
      if (isStopped) return;
      log.error({ why }, 'the job queue broke down and is begun again');
      runner.stop().catch((error: unknown) => log.debug({ err: error }, 'the queue before had stopped by itself'));
      current = beginAgain();
    });
    return runner;
  };
  /** Whatever keeps it from it, and however long: without a queue nothing is made. */
  const beginAgain = async (): Promise<Runner> => {
    for (;;) {
      await after(REST_MS);
      if (isStopped) throw new Error('The queue is begun no more: the server stops.');
      try {
        return await begin();
      } catch (error) {
        log.error({ err: error }, 'the job queue can’t be begun yet');
      }
    }
  };
  let current = begin();
  await current;
  const stopTelling = tellSoon(parts, () => current);
  return {
    async stop() {
      isStopped = true;
      stopTelling();
      await current
        .then((runner) => runner.stop())
        .catch((error: unknown) => log.warn({ err: error }, 'the job queue had ended before it was stopped'));
      postman.close();
      await post.server?.stop();
    },
  };
}

interface PostParts {
  /** Where mails are handed over, whom they are from, and where answers come to. */
  readonly outside: Pick<MailServer, 'url' | 'from' | 'inbound'>;
  /** The mail server on loopback: the stand-in, or what answers are handed in to; null where there is neither. */
  readonly server: StandIn | null;
}

/** Mails leave for a server outside, or for the stand-in; answers to them come in by the one on loopback. */
async function startPost({ source, clock, log, mail, inbound }: WorkerParts): Promise<PostParts> {
  const from = mail?.from ?? STAND_IN_FROM;
  const mailbox = inbound?.mailbox ?? (mail === null ? STAND_IN_MAILBOX : null);
  const inbox = mailbox === null ? null : new Inbox(source, clock, log, mailbox, bareAddress(from));
  const isStandIn = mail === null;
  const port = inbound?.port ?? 0;
  const listen = () => startMailServer({ source, log, inbox, port, isStandIn });
  const server = isStandIn ? await listen() : inbound ? await unlessTaken(listen, log) : null;
  return { outside: { url: mail?.url ?? server?.url ?? '', from, inbound: mailbox }, server };
}

/** Of several workers on one machine the first takes answers in; the others go on without. */
async function unlessTaken(listen: () => Promise<StandIn>, log: Logger): Promise<StandIn | null> {
  try {
    return await listen();
  } catch (error) {
    if (!(error instanceof Error && 'code' in error && error.code === 'EADDRINUSE')) throw error;
    log.warn({ err: error }, 'answers are taken in by another worker, or by nobody: the port is taken');
    return null;
  }
}

/** "rota@saltmarsh.example" of "Jolly Rota <rota@saltmarsh.example>". */
const bareAddress = (from: string): string => /<([^>]+)>/.exec(from)?.[1] ?? from;

/** What is done is told within moments, and not with the next minute: bells are to ring while it matters. */
function tellSoon({ source, log }: WorkerParts, runner: () => Promise<Runner>): () => void {
  const look = async () => {
    const waiting = await source.query<{ workspaceId: string; job: 'tell' | 'push' }[]>(
      `select distinct workspace_id as "workspaceId", job from (
         (select workspace_id, 'tell' as job from untold limit 1000)
         union all (select workspace_id, 'push' from message where push = 'undecided' limit 1000)) as noted`,
    );
    const [hooks] = await source.query<{ due: boolean }[]>(
      `select exists (select from webhook_delivery d join webhook w on w.workspace_id = d.workspace_id and w.id = d.webhook_id and w.is_on
         where d.state = 'waiting' and d.try_at <= clock_timestamp()) as due`,
    );
    if (hooks?.due) await (await runner()).addJob('webhooks', {}, { jobKey: 'webhooks' });
    for (const { workspaceId, job } of waiting)
      await (await runner()).addJob(job, { workspaceId } satisfies OfWorkspacePayload, {
        jobKey: `${job}:${workspaceId}`,
      });
  };
  let timer: NodeJS.Timeout;
  let isOver = false;
  // Said once, not with each look while the database is away.
  let isAway = false;
  const again = () => {
    if (isOver) return;
    timer = setTimeout(() => {
      look()
        .then(
          () => {
            if (isAway) log.info('what is to be told is looked for again');
            isAway = false;
          },
          (error: unknown) => {
            // What is not told now is told with the next minute.
            if (!isAway) log.warn({ err: error }, 'what is to be told waits');
            isAway = true;
          },
        )
        .finally(again);
    }, TELL_EVERY_MS);
  };
  again();
  return () => {
    isOver = true;
    clearTimeout(timer);
  };
}

async function startRunner(
  { source, pool, clock, log, files, backups, tellsInside, origin }: WorkerParts,
  postman: Postman,
  post: PostParts,
  events: WorkerEvents,
): Promise<Runner> {
  const scopeOf = (workspace: Workspace) => Scope.on(source, workspace, null, clock);
  /** A job of one workspace, which may be gone by now. */
  const ofWorkspace = <Payload extends OfWorkspacePayload>(
    work: (workspace: Workspace, payload: Payload) => Promise<void>,
  ): Task =>
    throughOutages(log, async (payload, { job }) => {
      const of = payload as Payload;
      const workspace = await source.getRepository(Workspace).findOneBy({ id: of.workspaceId });
      if (!workspace) return;
      const key = `${job.task_identifier} ${workspace.id}`;
      try {
        await work(workspace, of);
        failed.delete(key);
      } catch (error) {
        await countFailure(workspace, job.task_identifier, key);
        throw error;
      }
    });
  /** How often each has failed since it last worked. */
  const failed = new Map<string, number>();
  /** What fails once may work with the next try; what fails again and again is told to those who can do something. */
  const countFailure = async (workspace: Workspace, job: string, key: string): Promise<void> => {
    const times = (failed.get(key) ?? 0) + 1;
    failed.set(key, times);
    if (times !== TOLD_AFTER || !isServerJob(job)) return;
    await tellTrouble(scopeOf(workspace), job, times).catch((error: unknown) =>
      log.error({ err: error, job }, 'that something fails again and again could not be told'),
    );
  };
  const runner = await run({
    pgPool: pool,
    events,
    noHandleSignals: true,
    // With a delay, if of nothing, a job that can't be handed back ends the queue, which is then begun again;
    // without one it is an error that nobody catches.
    preset: { worker: { concurrentJobs: 3, completeJobBatchDelay: 0, failJobBatchDelay: 0 } },
    crontab: '* * * * * tick\n17 3 * * * sweep',
    logger: new WorkerLogger(
      () => (level, message) => log[level === 'warning' ? 'warn' : level === 'info' ? 'debug' : level](message),
    ),
    taskList: {
      tick: throughOutages(log, async (_payload, helpers) => {
        for (const workspace of await source.getRepository(Workspace).find()) {
          const scope = scopeOf(workspace);
          if (isMakingDue(scope))
            await helpers.addJob('make', { workspaceId: workspace.id, why: 'daily' } satisfies MakePayload, {
              jobKey: `make:${workspace.id}`,
            });
          if (isAskingDue(scope))
            await helpers.addJob('ask', { workspaceId: workspace.id } satisfies OfWorkspacePayload, {
              jobKey: `ask:${workspace.id}`,
            });
          await noteLate(scope);
          if (await isBackupDue(scope)) await askForBackup(scope);
          if (await isListingDue(scope))
            await helpers.addJob('lists', { workspaceId: workspace.id } satisfies OfWorkspacePayload, {
              jobKey: `lists:${workspace.id}`,
            });
          await helpers.addJob('push', { workspaceId: workspace.id } satisfies OfWorkspacePayload, {
            jobKey: `push:${workspace.id}`,
          });
          await helpers.addJob('hear', { workspaceId: workspace.id } satisfies OfWorkspacePayload, {
            jobKey: `hear:${workspace.id}`,
          });
          if (await areSummariesOwed(scope))
            await helpers.addJob('summaries', { workspaceId: workspace.id } satisfies OfWorkspacePayload, {
              jobKey: `summaries:${workspace.id}`,
            });
        }
        const [waiting] = await source.query<{ any: boolean }[]>(
          `select exists (select from mail where state = 'waiting' and try_at <= clock_timestamp()) as any`,
        );
        if (waiting?.any) await helpers.addJob('post', {}, { jobKey: 'post' });
      }),
      post: throughOutages(log, async () => {
        const sent = await postman.send(() => new Date(clock.now()));
        if (sent > 0) log.info({ sent }, 'mails sent');
      }),
      make: ofWorkspace<MakePayload>(async (workspace, { why }) => {
        const result = await runMaking(scopeOf(workspace), why, log);
        log.info({ workspace: workspace.name, made: result.made, already: result.already }, 'tasks made');
      }),
      ask: ofWorkspace(async (workspace) => {
        const sent = await askOwed(scopeOf(workspace), origin);
        if (sent > 0) log.info({ workspace: workspace.name, sent }, 'clients asked');
      }),
      lists: ofWorkspace(async (workspace) => {
        const made = await makeLists(scopeOf(workspace), origin);
        if (made > 0) log.info({ workspace: workspace.name, made }, 'call lists made');
      }),
      summaries: ofWorkspace(async (workspace) => {
        const as = (person: Person) => Scope.on(source, workspace, person, clock);
        const sent = await sendSummaries(scopeOf(workspace), as, origin);
        if (sent > 0) log.info({ workspace: workspace.name, sent }, 'summaries sent');
      }),
      hear: ofWorkspace(async (workspace) => {
        const sent = await hear(scopeOf(workspace), origin, MORNINGS);
        if (sent > 0) log.info({ workspace: workspace.name, sent }, 'mails of what happened put in the outbox');
      }),
      tryOut: ofWorkspace<TriedOut>(async (workspace, tried) => {
        const { server, outside } = post;
        if (server !== null && outside.inbound !== null)
          await tryOut(scopeOf(workspace), server.url, outside.inbound, tried);
      }),
      tell: ofWorkspace(async (workspace) => {
        await tellNoted(scopeOf(workspace));
      }),
      // By itself: a push service that does not answer keeps no bell from ringing.
      push: ofWorkspace(async (workspace) => {
        const contact = `mailto:${bareAddress(post.outside.from)}`;
        const taken = await pushMessages(scopeOf(workspace), () => pushKeys(source), contact);
        if (taken > 0) log.info({ workspace: workspace.name, taken }, 'signs sent to devices');
      }),
      webhooks: throughOutages(log, async () => {
        const taken = await deliverWebhooks(source, tellsInside);
        if (taken > 0) log.info({ taken }, 'programs told of what happened');
      }),
      backup: ofWorkspace<BackupPayload>((workspace, { backupId }) =>
        carryOutBackup(scopeOf(workspace), backupId, { pool, files, folder: backups }),
      ),
      fill: ofWorkspace<FillPayload>((workspace, { runId }) => carryOutFill(scopeOf(workspace), runId)),
      letGo: ofWorkspace(async (workspace) => {
        const tasks = await letGoWhatIsDue(scopeOf(workspace));
        if (tasks !== null)
          log.info({ workspace: workspace.name, tasks }, 'finished work let go that is kept no longer');
      }),
      sweep: throughOutages(log, async (_payload, helpers) => {
        // Each by itself: what goes wrong in one keeps no other from it.
        for (const { id: workspaceId } of await source.getRepository(Workspace).findBy({ keepYears: Not(IsNull()) }))
          await helpers.addJob('letGo', { workspaceId } satisfies OfWorkspacePayload, {
            jobKey: `letGo:${workspaceId}`,
          });
        await sweepAnswerParts(source, new Date(clock.now()));
        const counts = await compactEndedCounts(source);
        const gone = await sweepFiles(source, files, new Date(clock.now()));
        const arrivals = await sweepArrivals(source, new Date(clock.now()));
        const messages = await sweepMessages(source, new Date(clock.now()));
        const deliveries = await sweepDeliveries(source);
        log.info(
          { gone, arrivals, counts, messages, deliveries },
          'files, keys of devices and old messages let go, counts put together',
        );
      }),
    },
  });
  try {
    await askForWhatIsOwed(runner, source);
  } catch (error) {
    // Another is begun in its place, and this one must not go on beside it.
    await runner.stop().catch((again: unknown) => log.warn({ err: again }, 'a job queue could not be given up'));
    throw error;
  }
  return runner;
}

/** What fell due while nothing ran. */
async function askForWhatIsOwed(runner: Runner, source: DataSource): Promise<void> {
  for (const workspace of await source.getRepository(Workspace).find()) {
    await runner.addJob('make', { workspaceId: workspace.id, why: 'startup' } satisfies MakePayload, {
      jobKey: `make:${workspace.id}`,
    });
  }
  // What fell due while nothing ran is caught up at once, not with the next minute.
  await runner.addJob('tick', {}, { jobKey: 'tick' });
  // A process that was killed holds its job for hours; what it was at is handed on to whoever starts next.
  for (const { id, workspaceId } of await source.getRepository(Run).findBy({ state: 'running' })) {
    await runner.addJob('fill', { workspaceId, runId: id } satisfies FillPayload, { jobKey: `fill:${id}` });
  }
}

/** Every job may be begun again from its start, so it goes on when the database is back. */
function throughOutages(log: Logger, work: (payload: unknown, helpers: JobHelpers) => Promise<void>): Task {
  return (payload, helpers) => untilDatabaseAnswers(() => work(payload, helpers), log);
}

/**
 * Whether the workspace's time of day has come and today's making has not been done. A day after today counts as not
 * done: it was written while the clock was ahead, or before the workspace moved to the west, and must not keep the run off.
 */
export function isMakingDue(scope: Scope): boolean {
  const { workspace, today, clock } = scope;
  if (workspace.madeOn === today) return false;
  return clock.now() >= instantOf(today, workspace.makeTime, workspace.zone);
}

/** Whether the time of day has come from which clients are asked, and they have not been today. */
function isAskingDue({ workspace, today, clock }: Scope): boolean {
  return workspace.askedOn !== today && clock.now() >= instantOf(today, workspace.asking.sendFrom, workspace.zone);
}
