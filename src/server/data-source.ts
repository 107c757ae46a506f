import { AnswerPart, AnswerRecord } from './answers/index.ts';
import { BackupPlan, BackupRecord } from './backup/index.ts';
import { MessageRecord } from './bell/index.ts';
import { BringIn, BringInRow, CalendarOrigin } from './bring-in/index.ts';
import { CalendarAddressRecord } from './calendars/index.ts';
import { Call, CallList, CallQuota, CallStandingRecord } from './calls/stored/index.ts';
import { ClientAsk, ClientLink } from './client-links/index.ts';
import { Asset, Client, Contact } from './clients/index.ts';
import { CommentRecord } from './comments/index.ts';
import { StoredFile } from './files/stored/index.ts';
import { Notice, NoticeLetterRecord } from './notices/index.ts';
import { AccountLink, Clocking, Invitation, Leave } from './people/index.ts';
import { OnPlan, PlanRecord } from './plans/stored/index.ts';
import { Mail, MailPart, MailStop, ReceivedMail } from './post/index.ts';
import { PushDevice } from './push/index.ts';
import { LettingGoRecord } from './retention/index.ts';
import { Run } from './runs/index.ts';
import { Schedule, TurnSwap } from './schedules/index.ts';
import { KeptView } from './task-list/index.ts';
import { TaskRecord, WorkContent } from './tasks/stored/index.ts';
import { Favourite, Template } from './templates/stored/index.ts';
import { WebhookDeliveryRecord, WebhookRecord } from './webhooks/index.ts';
import 'reflect-metadata';
import { runMigrations } from 'graphile-worker';
import pg from 'pg';
import { DataSource } from 'typeorm';
import { MessageWishRecord } from './messages/index.ts';
import { Arrival } from './platform/arrival.ts';
import { Change } from './platform/changes/entity.ts';
import { AccessTokens1769400000000 } from './platform/db/migrations/access-tokens.ts';
import { Arrivals1767400000000 } from './platform/db/migrations/arrivals.ts';
import { AskedTickets1766600000000 } from './platform/db/migrations/asked-tickets.ts';
import { Assignment1766400000000 } from './platform/db/migrations/assignment.ts';
import { Backups1769300000000 } from './platform/db/migrations/backups.ts';
import { BoundedChanges1765400000000 } from './platform/db/migrations/bounded-changes.ts';
import { BringIns1766100000000 } from './platform/db/migrations/bring-ins.ts';
import { BroughtInWork1769900000000 } from './platform/db/migrations/brought-in-work.ts';
import { CalendarAddresses1769200000000 } from './platform/db/migrations/calendar-addresses.ts';
import { CallQuotas1768400000000 } from './platform/db/migrations/call-quotas.ts';
import { CallsTakenOff1768500000000 } from './platform/db/migrations/calls-taken-off.ts';
import { ClientLinks1768300000000 } from './platform/db/migrations/client-links.ts';
import { ClientRecords1766000000000 } from './platform/db/migrations/client-records.ts';
import { ContentOnce1764900000000 } from './platform/db/migrations/content-once.ts';
import { CoveredTasks1770000000000 } from './platform/db/migrations/covered-tasks.ts';
import { DeletedHeads1766700000000 } from './platform/db/migrations/deleted-heads.ts';
import { DeletedTasks1764300000000 } from './platform/db/migrations/deleted-tasks.ts';
import { EndedCounts1767900000000 } from './platform/db/migrations/ended-counts.ts';
import { ExceptionsAndRevisions1764100000000 } from './platform/db/migrations/exceptions-and-revisions.ts';
import { FileTotals1764800000000 } from './platform/db/migrations/file-totals.ts';
import { FirstSlice1764000000000 } from './platform/db/migrations/first-slice.ts';
import { FoundByName1765200000000 } from './platform/db/migrations/found-by-name.ts';
import { HeldUpAndTold1767300000000 } from './platform/db/migrations/held-up-and-told.ts';
import { JoinedChanges1764600000000 } from './platform/db/migrations/joined-changes.ts';
import { LateTemplates1769100000000 } from './platform/db/migrations/late-templates.ts';
import { LeaveCover1766900000000 } from './platform/db/migrations/leave-cover.ts';
import { LeaveExchanges1767100000000 } from './platform/db/migrations/leave-exchanges.ts';
import { LoggedChanges1767600000000 } from './platform/db/migrations/logged-changes.ts';
import { MailAnswers1768900000000 } from './platform/db/migrations/mail-answers.ts';
import { MessagesTold1768700000000 } from './platform/db/migrations/messages-told.ts';
import { MoreTold1768800000000 } from './platform/db/migrations/more-told.ts';
import { NoDefaults1765000000000 } from './platform/db/migrations/no-defaults.ts';
import { NobodysTasks1765100000000 } from './platform/db/migrations/nobodys-tasks.ts';
import { Notices1768100000000 } from './platform/db/migrations/notices.ts';
import { OnTime1767500000000 } from './platform/db/migrations/on-time.ts';
import { PeopleAndAccess1765800000000 } from './platform/db/migrations/people-and-access.ts';
import { PostAndInvitations1765900000000 } from './platform/db/migrations/post-and-invitations.ts';
import { Push1769000000000 } from './platform/db/migrations/push.ts';
import { Retention1767800000000 } from './platform/db/migrations/retention.ts';
import { RunLog1764400000000 } from './platform/db/migrations/run-log.ts';
import { RungContacts1769600000000 } from './platform/db/migrations/rung-contacts.ts';
import { RunsByDay1765500000000 } from './platform/db/migrations/runs-by-day.ts';
import { SeriesAtHand1765600000000 } from './platform/db/migrations/series-at-hand.ts';
import { ServicePlans1768200000000 } from './platform/db/migrations/service-plans.ts';
import { ShiftsAndSwaps1766800000000 } from './platform/db/migrations/shifts-and-swaps.ts';
import { SteadyTriggers1766500000000 } from './platform/db/migrations/steady-triggers.ts';
import { Summaries1768600000000 } from './platform/db/migrations/summaries.ts';
import { TaskColumns1767700000000 } from './platform/db/migrations/task-columns.ts';
import { TaskViews1767200000000 } from './platform/db/migrations/task-views.ts';
import { TemplateRule1767000000000 } from './platform/db/migrations/template-rule.ts';
import { TemplatesStepsProof1764200000000 } from './platform/db/migrations/templates-steps-proof.ts';
import { ToldOfTouched1765300000000 } from './platform/db/migrations/told-of-touched.ts';
import { VisitRules1768000000000 } from './platform/db/migrations/visit-rules.ts';
import { WatchedTasks1764700000000 } from './platform/db/migrations/watched-tasks.ts';
import { Ways1766300000000 } from './platform/db/migrations/ways.ts';
import { Webhooks1769500000000 } from './platform/db/migrations/webhooks.ts';
import { WeekHours1766200000000 } from './platform/db/migrations/week-hours.ts';
import { WideChanges1764500000000 } from './platform/db/migrations/wide-changes.ts';
import { WorkspaceSettings1765700000000 } from './platform/db/migrations/workspace-settings.ts';
import { SnakeNaming } from './platform/db/naming.ts';
import { Account, Person } from './platform/identity/person.ts';
import { AccessTokenRecord } from './platform/identity/token.ts';
import { Holiday, Workspace } from './platform/identity/workspace.ts';

// Civil dates stay YYYY-MM-DD strings: a Date at local midnight would move with the zone of the process.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);
pg.types.setTypeParser(pg.types.builtins.INT8, (text) => Number(text));

/** A question that takes longer is given up, and so is one that waits longer for others. */
const LONGEST_QUESTION_MS = 120_000;
const LONGEST_WAIT_MS = 30_000;

interface Asking {
  /** Connections that it holds at the most. */
  readonly connections?: number;
  /** How long a question may take; 0 for as long as it takes, as for a migration of a large table. */
  readonly longestMs?: number;
}

export function dataSource(
  databaseUrl: string,
  { connections = 4, longestMs = LONGEST_QUESTION_MS }: Asking = {},
): DataSource {
  return new DataSource({
    type: 'postgres',
    url: databaseUrl,
    synchronize: false,
    installExtensions: false,
    uuidExtension: 'pgcrypto',
    logging: false,
    namingStrategy: new SnakeNaming(),
    entities: [
      Workspace,
      Holiday,
      Run,
      Account,
      Person,
      Leave,
      Clocking,
      Client,
      Contact,
      BringIn,
      BringInRow,
      CalendarOrigin,
      Asset,
      Template,
      Favourite,
      PlanRecord,
      OnPlan,
      Schedule,
      TurnSwap,
      MessageRecord,
      CommentRecord,
      KeptView,
      LettingGoRecord,
      TaskRecord,
      WorkContent,
      StoredFile,
      Mail,
      MailPart,
      ReceivedMail,
      MailStop,
      PushDevice,
      AnswerRecord,
      AnswerPart,
      NoticeLetterRecord,
      ClientLink,
      ClientAsk,
      CallQuota,
      CallList,
      Call,
      CallStandingRecord,
      MessageWishRecord,
      CalendarAddressRecord,
      BackupRecord,
      BackupPlan,
      AccessTokenRecord,
      WebhookRecord,
      WebhookDeliveryRecord,
      Notice,
      Invitation,
      AccountLink,
      Change,
      Arrival,
    ],
    migrations: [
      FirstSlice1764000000000,
      ExceptionsAndRevisions1764100000000,
      TemplatesStepsProof1764200000000,
      DeletedTasks1764300000000,
      RunLog1764400000000,
      WideChanges1764500000000,
      JoinedChanges1764600000000,
      WatchedTasks1764700000000,
      FileTotals1764800000000,
      ContentOnce1764900000000,
      NoDefaults1765000000000,
      NobodysTasks1765100000000,
      FoundByName1765200000000,
      ToldOfTouched1765300000000,
      BoundedChanges1765400000000,
      RunsByDay1765500000000,
      SeriesAtHand1765600000000,
      WorkspaceSettings1765700000000,
      PeopleAndAccess1765800000000,
      PostAndInvitations1765900000000,
      ClientRecords1766000000000,
      BringIns1766100000000,
      WeekHours1766200000000,
      Ways1766300000000,
      Assignment1766400000000,
      SteadyTriggers1766500000000,
      AskedTickets1766600000000,
      DeletedHeads1766700000000,
      ShiftsAndSwaps1766800000000,
      LeaveCover1766900000000,
      TemplateRule1767000000000,
      LeaveExchanges1767100000000,
      TaskViews1767200000000,
      HeldUpAndTold1767300000000,
      Arrivals1767400000000,
      OnTime1767500000000,
      LoggedChanges1767600000000,
      TaskColumns1767700000000,
      Retention1767800000000,
      EndedCounts1767900000000,
      VisitRules1768000000000,
      Notices1768100000000,
      ServicePlans1768200000000,
      ClientLinks1768300000000,
      CallQuotas1768400000000,
      CallsTakenOff1768500000000,
      Summaries1768600000000,
      MessagesTold1768700000000,
      MoreTold1768800000000,
      MailAnswers1768900000000,
      Push1769000000000,
      LateTemplates1769100000000,
      CalendarAddresses1769200000000,
      Backups1769300000000,
      AccessTokens1769400000000,
      Webhooks1769500000000,
      RungContacts1769600000000,
      BroughtInWork1769900000000,
      CoveredTasks1770000000000,
    ],
    extra: {
      max: connections,
      statement_timeout: longestMs,
      lock_timeout: LONGEST_WAIT_MS,
      // Our questions are many and short: compiling them took three times as long as answering them, and to begin helpers for
      // one that looks longer than it is takes longer than most.
      options: '-c jit=off -c parallel_setup_cost=8000',
    },
  });
}

/** Brings the tables up to date, the queue's own too: whoever serves pages puts jobs there. Gives how many steps of ours that took. */
export async function migrated(source: DataSource, databaseUrl: string): Promise<number> {
  const ran = await source.runMigrations({ transaction: 'each' });
  await runMigrations({ connectionString: databaseUrl });
  return ran.length;
}
