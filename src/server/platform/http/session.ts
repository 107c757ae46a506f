import { randomBytes } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type pg from 'pg';
import type { DataSource } from 'typeorm';
import { hasLeftBy } from '../../../core/index.ts';
import { type Clock, civilNow } from '../clock.ts';
import { Person } from '../identity/person.ts';
import { Workspace } from '../identity/workspace.ts';
import { Latest, ofEachDatabase } from '../latest.ts';

declare module 'express-session' {
  interface SessionData {
    workspaceId: string;
    personId: string;
    accountId: string;
    /** When it began and when it was last used, in milliseconds since 1970; and with which browser, in its own words. */
    begunAt: number;
    /** Whether it lasts when the browser is closed. */
    isKept: boolean;
    agent: string;
  }
}

const MINUTE = 60 * 1000;
const DAY = 24 * 60 * MINUTE;
/** A session that is not used for so long ends; and each ends after so long, used or not. */
const IDLE_MS = 14 * DAY;
const LONGEST_MS = 30 * DAY;
/** That it is used is written down no more often than this. */
const TOUCHED_MS = 10 * MINUTE;
const MOST_REMEMBERED = 10_000;

/** Keeps sessions in the database, and does not write on every request that one is still used. */
function storeOf(pool: pg.Pool): session.Store {
  const Store = connectPgSimple(session);
  const store = new Store({ pool, tableName: 'session', pruneSessionInterval: 60 * 60 });
  const touched = new Map<string, number>();
  const touch = store.touch.bind(store);
  store.touch = (sid, data, done) => {
    const last = touched.get(sid);
    if (last !== undefined && Date.now() - last < TOUCHED_MS) return done?.();
    if (touched.size >= MOST_REMEMBERED) touched.clear();
    touched.set(sid, Date.now());
    touch(sid, data, done);
  };
  shareLookups(store);
  return store;
}

/**
 * Requests that come at once with the same cookie are one question, so that nobody's forty hold up another's one. None is
 * given an answer from before it asked: an ended session is not found by whoever comes after its end.
 */
export function shareLookups(store: session.Store): void {
  const lookups = new Latest<session.SessionData | null>();
  const get = store.get.bind(store);
  const found = (sid: string) =>
    new Promise<session.SessionData | null>((resolve, reject) =>
      get(sid, (error, data) => (error ? reject(error) : resolve(data ?? null))),
    );
  store.get = (sid, done) => {
    lookups
      .of(sid, () => found(sid))
      // Each has data of its own: a request may change it.
      .then((data) => done(null, structuredClone(data)), done);
  };
}

/** @param secure whether browsers reach us by https alone, whoever speaks it for us */
export function sessions(pool: pg.Pool, secret: string, secure: boolean): RequestHandler {
  const handler = session({
    name: 'jolly-rota',
    secret,
    resave: false,
    saveUninitialized: false,
    store: storeOf(pool),
    proxy: secure,
    cookie: { httpOnly: true, sameSite: 'lax', secure, maxAge: IDLE_MS },
  });
  return (request, response, next) => {
    // Asked under its https address it was asked over https, whether or not the proxy in front says so.
    if (secure) request.headers['x-forwarded-proto'] = 'https';
    handler(request, response, next);
  };
}

/** The secret that signs cookies: made once, kept in the database, the same for every server process. */
export async function sessionSecret(source: DataSource): Promise<string> {
  await source.query('insert into setting (key, value) values ($1, $2) on conflict do nothing', [
    'session_secret',
    randomBytes(32).toString('hex'),
  ]);
  const [row] = await source.query<{ value: string }[]>('select value from setting where key = $1', ['session_secret']);
  if (!row) throw new Error('The session secret could not be kept in the database.');
  return row.value;
}

export interface SignedIn {
  readonly workspace: Workspace;
  readonly person: Person;
}

/** Who is signed in, as the database knows them now; null for nobody, and for a session that has come to its end. */
export async function sessionPerson(source: DataSource, request: Request, clock: Clock): Promise<SignedIn | null> {
  const { workspaceId, personId, begunAt } = request.session;
  if (!workspaceId || !personId) return null;
  if (begunAt === undefined || Date.now() - begunAt > LONGEST_MS) {
    await endSession(request);
    return null;
  }
  return whoIs(source, workspaceId, personId, clock);
}

/** Somebody of a workspace, as the database knows them now; null where they are not here any more. */
export async function whoIs(
  source: DataSource,
  workspaceId: string,
  personId: string,
  clock: Clock,
): Promise<SignedIn | null> {
  const signedIn = await known({ database: source }).of(`${workspaceId} ${personId}`, () =>
    knownAs(source, workspaceId, personId),
  );
  // Nobody goes on after their last day.
  return signedIn && !hasLeftBy(signedIn.person, civilNow(clock, signedIn.workspace.zone).day) ? signedIn : null;
}

/** Requests of one person that come at once are told by one question. */
const known = ofEachDatabase(() => new Latest<SignedIn | null>());

async function knownAs(source: DataSource, workspaceId: string, personId: string): Promise<SignedIn | null> {
  const [person, workspace] = await Promise.all([
    source.getRepository(Person).findOneBy({ workspaceId, id: personId }),
    source.getRepository(Workspace).findOneBy({ id: workspaceId }),
  ]);
  // Several requests hold the same: none may change it.
  return person && workspace ? { workspace: Object.freeze(workspace), person: Object.freeze(person) } : null;
}

const MOST_AGENT = 300;

/** A fresh session id for whoever has just shown who they are, so that an id planted before is worth nothing. */
export function beginSession(
  request: Request,
  person: Person,
  { isKept }: { readonly isKept: boolean },
): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.regenerate((error: unknown) => {
      if (error) return reject(error);
      request.session.workspaceId = person.workspaceId;
      request.session.personId = person.id;
      if (person.accountId !== null) request.session.accountId = person.accountId;
      // Else it ends with the browser, and after a day without use.
      if (!isKept) request.session.cookie.expires = null;
      request.session.isKept = isKept;
      request.session.begunAt = Date.now();
      request.session.agent = (request.headers['user-agent'] ?? '').slice(0, MOST_AGENT);
      request.session.save((failure: unknown) => (failure ? reject(failure) : resolve()));
    });
  });
}

export function endSession(request: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.destroy((error: unknown) => (error ? reject(error) : resolve()));
  });
}

/** A session of an account, as its owner is told of it. */
export interface AccountSession {
  readonly id: string;
  readonly begunAt: Date;
  readonly agent: string;
  readonly isThis: boolean;
}

/** Where an account is signed in, newest first. Sessions are named by a digest of their id, which itself stays secret. */
export async function accountSessions(source: DataSource, request: Request): Promise<AccountSession[]> {
  const rows = await source.query<{ id: string; begunAt: string; agent: string; isThis: boolean }[]>(
    `select encode(sha256(sid::bytea), 'hex') as id, (sess->>'begunAt')::bigint as "begunAt", sess->>'agent' as agent, sid = $2 as "isThis"
     from session where sess->>'accountId' = $1 and expire > now() order by (sess->>'begunAt')::bigint desc limit 100`,
    [request.session.accountId ?? '', request.sessionID],
  );
  return rows.map((row) => ({ ...row, begunAt: new Date(Number(row.begunAt)) }));
}

/** Ends sessions of the account that asks: one by its name, or all but the one that asks. Gives how many. */
export async function endOtherSessions(source: DataSource, request: Request, only: string | null): Promise<number> {
  const [rows] = await source.query<[{ sid: string }[], number]>(
    `delete from session where sess->>'accountId' = $1 and sid <> $2
       and ($3::text is null or encode(sha256(sid::bytea), 'hex') = $3) returning sid`,
    [request.session.accountId ?? '', request.sessionID, only],
  );
  return rows.length;
}
