import { randomBytes } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type pg from 'pg';
import type { DataSource } from 'typeorm';
import { Person } from '../people/entity.ts';
import { Workspace } from '../workspace/entity.ts';

declare module 'express-session' {
  interface SessionData {
    workspaceId: string;
    personId: string;
  }
}

const DAYS = 24 * 60 * 60 * 1000;

export function sessions(pool: pg.Pool, secret: string): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: 'jolly-rota',
    secret,
    resave: false,
    saveUninitialized: false,
    store: new Store({ pool, tableName: 'session', pruneSessionInterval: 60 * 60 }),
    cookie: { httpOnly: true, sameSite: 'lax', secure: 'auto', maxAge: 14 * DAYS },
  });
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

/** Who is signed in, as the database knows them now; null for nobody. */
export async function sessionPerson(source: DataSource, request: Request): Promise<SignedIn | null> {
  const { workspaceId, personId } = request.session;
  if (!workspaceId || !personId) return null;
  const person = await source.getRepository(Person).findOneBy({ workspaceId, id: personId });
  const workspace = await source.getRepository(Workspace).findOneBy({ id: workspaceId });
  return person && workspace ? { workspace, person } : null;
}

/** A fresh session id for whoever has just shown who they are, so that an id planted before is worth nothing. */
export function beginSession(request: Request, person: Person): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.regenerate((error: unknown) => {
      if (error) return reject(error);
      request.session.workspaceId = person.workspaceId;
      request.session.personId = person.id;
      request.session.save((failure: unknown) => (failure ? reject(failure) : resolve()));
    });
  });
}

export function endSession(request: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.destroy((error: unknown) => (error ? reject(error) : resolve()));
  });
}
