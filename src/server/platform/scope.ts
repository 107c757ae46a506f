import type { DataSource, EntityManager, EntityTarget, FindOptionsWhere, ObjectLiteral } from 'typeorm';
import type { Live, Topic } from '../../contract/index.ts';
import {
  type CivilNow,
  dayOfIso,
  isoOfDay,
  type Reach,
  type Right,
  reachOf,
  type TokenScope,
  tokenMay,
  type WorkingCalendar,
  workingCalendar,
} from '../../core/index.ts';
import type { Sent } from './arrival.ts';
import type { Action, Subject } from './changes/actions.ts';
import { Change, type ChangeEntry, type FieldChanges, isSame } from './changes/entity.ts';
import { type Clock, civilNow, momentAt } from './clock.ts';
import { isDeadlock } from './db/deadlock.ts';
import { orderedIds } from './db/uuid.ts';
import type { Person } from './identity/person.ts';
import { Holiday, type Workspace, Workspace as WorkspaceRecord } from './identity/workspace.ts';
import { notFound, Refusal } from './refusal.ts';
import { STEPS_CHANNEL, Steps } from './steps.ts';

/** The channel of live news in PostgreSQL. */
export const LIVE_CHANNEL = 'jolly_live';

const nextId = orderedIds();

/** News that names more of a kind than this is of all of them: what is told at once has 8,000 bytes at most (NOTIFY). */
const MOST_NAMED = 80;

/** Of work that others get in the way of. */
const MOST_TRIES = 6;

/** Somebody at a client's, who came by a link: what it opens, for whom. */
export interface ByLink {
  readonly linkId: string;
  readonly contactId: string;
  readonly name: string;
  readonly email: string;
  readonly clientId: string;
  /** The one task that it opens; null for all that is open of the client. */
  readonly taskId: string | null;
}

type InWorkspace = ObjectLiteral & { workspaceId: string };

/** Takes a rehearsal back. */
class Rehearsed extends Error {}

/**
 * One workspace, seen by one person (or by the server itself) at one moment. Every query of a service goes through it,
 * and it is the one place that says which workspace.
 */
export class Scope {
  private calendarOnce: Promise<WorkingCalendar> | undefined;
  private nowOnce: CivilNow | undefined;
  private todayOnce: string | undefined;

  constructor(
    private readonly manager: EntityManager,
    readonly workspace: Workspace,
    readonly person: Person | null,
    readonly clock: Clock,
    private readonly makeId: (epochMilliseconds: number) => string = nextId,
    /** What a device says of it, where it comes from one. */
    private readonly sent: Sent | null = null,
    /** Of work that is waited for. */
    private readonly steps: Steps | null = null,
    /** A client's contact who came by a link, where it is one of those and nobody of the workspace. */
    readonly contact: ByLink | null = null,
    /** How far a program may go that asks in the name of `person`; null for the person alone. */
    private readonly token: TokenScope | null = null,
  ) {}

  static on(
    source: DataSource,
    workspace: Workspace,
    person: Person | null,
    clock: Clock,
    makeId?: (epochMilliseconds: number) => string,
  ): Scope {
    return new Scope(source.manager, workspace, person, clock, makeId);
  }

  /** Whoever asks, for what is theirs alone. @throws where nobody of the workspace does */
  get me(): Person {
    if (this.person === null) throw notFound('person');
    return this.person;
  }

  /** The same but for some of what it was made with. */
  private but({
    manager = this.manager,
    workspace = this.workspace,
    sent = this.sent,
    steps = this.steps,
    contact = this.contact,
    token = this.token,
  }: Partial<Pick<Scope, 'workspace' | 'contact'>> & {
    readonly token?: TokenScope | null;
    readonly manager?: EntityManager;
    readonly sent?: Sent | null;
    readonly steps?: Steps | null;
  }): Scope {
    return new Scope(manager, workspace, this.person, this.clock, this.makeId, sent, steps, contact, token);
  }

  /** The same, after the workspace itself was changed within this work. */
  after(workspace: Workspace): Scope {
    return this.but({ workspace });
  }

  /** The same, seen by a client's contact who has come by a link. */
  by(contact: ByLink): Scope {
    return this.but({ contact });
  }

  /** The same, asked by a program in the name of whoever made its token. */
  byProgram(token: TokenScope): Scope {
    return this.but({ token });
  }

  /** The same, for something that was done on a device: its one transaction is done once, whatever comes with the same key. */
  of(sent: Sent): Scope {
    return this.but({ sent });
  }

  /**
   * The same, of which the page that waits for it is told how far it is.
   * @param key by which the page knows it; without one nobody is told
   * @param of how much is counted by `did`, all together
   */
  followed(key: string | undefined, of: number): Scope {
    const { id: workspace } = this.workspace;
    const person = this.person?.id;
    if (key === undefined || person === undefined || of === 0) return this;
    const steps = new Steps(
      (done) =>
        this.manager.dataSource.query('select pg_notify($1, $2)', [
          STEPS_CHANNEL,
          JSON.stringify({ workspace, person, key, done, of }),
        ]),
      of,
    );
    return this.but({ steps });
  }

  /** So much more of the work is done. */
  async did(count: number): Promise<void> {
    await this.steps?.did(count);
  }

  /** The workspace as it stands in the database, held against others until the transaction ends. */
  async lockedWorkspace(): Promise<Workspace> {
    const found = await this.manager.findOne(WorkspaceRecord, {
      where: { id: this.workspace.id },
      lock: { mode: 'for_no_key_update' },
    });
    if (!found) throw notFound('workspace');
    return found;
  }

  async saveWorkspace(changes: Partial<Workspace>): Promise<void> {
    await this.manager.update(WorkspaceRecord, { id: this.workspace.id }, changes);
  }

  /** The civil moment of this work. It stands while the work goes on: a list does not begin on one day and end on another. */
  get now(): CivilNow {
    this.nowOnce ??= civilNow(this.clock, this.workspace.zone);
    return this.nowOnce;
  }

  get today(): string {
    this.todayOnce ??= isoOfDay(this.now.day);
    return this.todayOnce;
  }

  /** How far a right goes for whoever asks; nowhere for nobody. */
  reach(right: Right): Reach {
    if (this.person === null || (this.token !== null && !tokenMay(this.token, right))) return 'none';
    return reachOf(this.person.access, right);
  }

  /** Whether whoever asks may do this to anything, not to their own alone. */
  mayAll(right: Right): boolean {
    return this.reach(right) === 'all';
  }

  /** Whether it sees what others don't see yet. */
  get isWithinTransaction(): boolean {
    return this.manager.queryRunner?.isTransactionActive === true;
  }

  /** What stands for the database in whatever is kept of it. */
  get database(): object {
    return this.manager.dataSource;
  }

  get instant(): Date {
    return new Date(this.clock.now());
  }

  /** When what is done now was done: earlier than it arrives, where a device had to keep it. */
  get doneAt(): Date {
    return this.sent?.at ?? this.instant;
  }

  newId(): string {
    return this.makeId(this.clock.now());
  }

  moment(at: Date): string;
  moment(at: Date | null): string | null;
  moment(at: Date | null): string | null {
    return at === null ? null : momentAt(at, this.workspace.zone);
  }

  /**
   * Runs the work in a transaction; all of it stands, or none. Where it and somebody else's wait for each other, the
   * database gives one of them up: that is begun again from its start, so the work keeps nothing outside of it.
   */
  async transaction<T>(work: (scope: Scope) => Promise<T>): Promise<T> {
    const isInner = this.isWithinTransaction;
    for (let tries = 1; ; tries++) {
      try {
        return await this.manager.transaction(async (manager) => {
          const tx = this.but({ manager });
          if (!isInner) {
            this.steps?.beginAgain();
            await tx.sayWho();
            await tx.arrive();
          }
          return work(tx);
        });
      } catch (error) {
        if (isInner || tries === MOST_TRIES || !isDeadlock(error)) throw error;
        // Not both at the same moment again.
        await new Promise((resolve) => setTimeout(resolve, Math.random() * 50 * tries));
      }
    }
  }

  /** Tells the database who does what is done now: what it notes for those who are to hear of it says so (`untold`). */
  private async sayWho(): Promise<void> {
    if (this.person !== null)
      await this.sql(`select set_config('jolly.by', $2, true) where $1::uuid is not null`, [this.person.id]);
  }

  /** Writes down that it has come, with all that it does or not at all. Two of the same that come at once wait for each other. */
  private async arrive(): Promise<void> {
    if (this.sent === null || this.sent.key === null) return;
    const [first] = await this.sql<{ key: string }>(
      'insert into arrival (workspace_id, person_id, key, at) values ($1, $2, $3, $4) on conflict do nothing returning key',
      [this.person?.id ?? null, this.sent.key, this.instant],
    );
    if (!first) throw new Refusal('arrived-before', 'This has arrived before, and was done then.');
  }

  /** Does the work for its answer alone: nothing of it stands. */
  async rehearse<T>(work: (scope: Scope) => Promise<T>): Promise<T> {
    let answer: { readonly value: T } | null = null;
    try {
      await this.transaction(async (tx) => {
        answer = { value: await work(tx) };
        throw new Rehearsed();
      });
    } catch (error) {
      if (!(error instanceof Rehearsed)) throw error;
    }
    if (answer === null) throw new Error('A rehearsal ended without an answer.');
    return (answer as { readonly value: T }).value;
  }

  /** SQL with the workspace's id as $1; `params` begin at $2. */
  async sql<Row>(text: string, params: readonly unknown[] = []): Promise<Row[]> {
    const answer: Row[] | [Row[], number] = await this.manager.query(text, [this.workspace.id, ...params]);
    // Of an UPDATE or DELETE TypeORM gives the rows returned and how many were touched; of all else the rows.
    return Array.isArray(answer[0]) && typeof answer[1] === 'number' ? answer[0] : (answer as Row[]);
  }

  /** Asks several questions side by side; one after the other within a transaction, which has a single connection. */
  async atOnce<T extends readonly (() => Promise<unknown>)[]>(
    ...questions: T
  ): Promise<{ readonly [K in keyof T]: Awaited<ReturnType<T[K]>> }> {
    const answers: unknown[] = [];
    if (this.isWithinTransaction) for (const ask of questions) answers.push(await ask());
    else answers.push(...(await Promise.all(questions.map((ask) => ask()))));
    return answers as { readonly [K in keyof T]: Awaited<ReturnType<T[K]>> };
  }

  /** @param where of several, any one of them; without any, all */
  find<E extends InWorkspace>(
    entity: EntityTarget<E>,
    first: FindOptionsWhere<E> = {},
    ...others: FindOptionsWhere<E>[]
  ): Promise<E[]> {
    const { id: workspaceId } = this.workspace;
    return this.manager.find(entity, { where: [first, ...others].map((where) => ({ ...where, workspaceId })) });
  }

  async one<E extends InWorkspace & { id: string }>(entity: EntityTarget<E>, id: string, what: string): Promise<E> {
    const found = await this.manager.findOneBy(entity, this.key(id));
    if (!found) throw notFound(what);
    return found;
  }

  /**
   * The same, held against others until the transaction ends, though not against rows that only name it: the weakest lock
   * that keeps changes apart, so that making tasks of a schedule and changing it don't wait for each other for good.
   */
  async locked<E extends InWorkspace & { id: string }>(entity: EntityTarget<E>, id: string, what: string): Promise<E> {
    const found = await this.manager.findOne(entity, { where: this.key(id), lock: { mode: 'for_no_key_update' } });
    if (!found) throw notFound(what);
    return found;
  }

  async insert<E extends InWorkspace>(entity: EntityTarget<E>, values: Omit<E, 'workspaceId'>): Promise<E> {
    const row = this.manager.create(entity, { ...values, workspaceId: this.workspace.id } as unknown as E);
    await this.manager.insert(entity, row);
    return row;
  }

  async save<E extends InWorkspace & { id: string }>(
    entity: EntityTarget<E>,
    id: string,
    changes: Partial<E>,
  ): Promise<void> {
    await this.manager.update(entity, this.key(id), changes);
  }

  private key<E extends InWorkspace & { id: string }>(id: string): FindOptionsWhere<E> {
    return { workspaceId: this.workspace.id, id } as FindOptionsWhere<E>;
  }

  calendar(): Promise<WorkingCalendar> {
    this.calendarOnce ??= this.find(Holiday).then((holidays) =>
      workingCalendar(
        this.workspace.workingWeekdays,
        new Map(holidays.map(({ date, name }) => [dayOfIso(date), name])),
      ),
    );
    return this.calendarOnce;
  }

  /** Names of the workspace's people by their ids. */
  async peopleNames(): Promise<ReadonlyMap<string, string>> {
    const people = await this.sql<{ id: string; name: string }>('select id, name from person where workspace_id = $1');
    return new Map(people.map(({ id, name }) => [id, name]));
  }

  /** Writes who changed what; gives the id by which it can be undone. */
  async record<S extends Subject>(
    subject: S,
    subjectId: string,
    action: Action<S>,
    fields: FieldChanges,
    watchId: string | null = null,
  ): Promise<string> {
    const { id } = await this.insert(Change, {
      id: this.newId(),
      at: this.instant,
      actorId: this.person?.id ?? null,
      byContact: this.contact?.name ?? null,
      subject,
      subjectId,
      action,
      fields,
      joinedId: null,
      watchId,
      undoneAt: null,
    });
    return id;
  }

  /** Writes changes that were made in one go; gives the id by which all of them can be undone. */
  async recordTogether(entries: readonly ChangeEntry[]): Promise<string> {
    const ids = await this.recordEach(entries);
    const [only] = ids;
    return only !== undefined && ids.length === 1 ? only : this.joinChanges(ids);
  }

  /** Writes changes, each for itself; gives their ids. */
  async recordEach(entries: readonly ChangeEntry[]): Promise<string[]> {
    const ids = entries.map(() => this.newId());
    await this.sql(
      `insert into change (workspace_id, id, at, actor_id, by_contact, subject, subject_id, action, fields, watch_id)
       select $1, entry.id, $2, $3, $4, entry.subject, entry.subject_id, entry.action, entry.fields, entry.watch_id
       from jsonb_to_recordset($5::jsonb) as entry (id uuid, subject text, subject_id uuid, action text, fields jsonb, watch_id uuid)`,
      [
        this.instant,
        this.person?.id ?? null,
        this.contact?.name ?? null,
        JSON.stringify(
          entries.map(({ subject, subjectId, action, fields, watchId = null }, i) => ({
            id: ids[i],
            subject,
            subject_id: subjectId,
            action,
            fields,
            watch_id: watchId,
          })),
        ),
      ],
    );
    return ids;
  }

  /** Makes one change of several that are written already; its id undoes them all. */
  async joinChanges(ids: readonly string[]): Promise<string> {
    const joinedId = await this.record('several', this.newId(), 'together', {});
    await this.sql('update change set joined_id = $2 where workspace_id = $1 and id = any($3::uuid[])', [
      joinedId,
      ids,
    ]);
    return joinedId;
  }

  /** Tells every browser of the workspace, once the transaction stands, that these lists may have changed. */
  tell(...topics: Topic[]): Promise<void> {
    return this.tellOf({ topics, tasks: null, people: null, load: true });
  }

  /** The same, as narrowly as it is known what has changed. */
  async tellOf({ tasks, people, ...news }: Live): Promise<void> {
    const few = (ids: readonly string[] | null) => (ids !== null && ids.length <= MOST_NAMED ? ids : null);
    await this.sql(
      `select pg_notify('${LIVE_CHANNEL}', (json_build_object('workspace', $1::uuid)::jsonb || $2::jsonb)::text)`,
      [JSON.stringify({ ...news, tasks: few(tasks), people: few(people) })],
    );
  }
}

/** What differs between two states of the same thing, field by field. */
export function fieldChanges<T extends object>(before: T, after: Partial<T>): FieldChanges {
  const changes: Record<string, { from: unknown; to: unknown }> = {};
  for (const [field, to] of Object.entries(after)) {
    const from = before[field as keyof T];
    if (!isSame(from, to)) changes[field] = { from, to };
  }
  return changes;
}
