import { type Request, type RequestHandler, type Response, Router } from 'express';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import {
  AGO_HEADER,
  type Deprecated,
  type Endpoint,
  KEY_HEADER,
  LONGEST_AGO_SECONDS,
  type PathParams,
} from '../../../contract/index.ts';
import { type Right, sayWhoMayAll, TOKEN_SCOPE_WORDS } from '../../../core/index.ts';
import type { Sent } from '../arrival.ts';
import type { Clock } from '../clock.ts';
import { forbidden, invalid, notFound, Refusal } from '../refusal.ts';
import { Scope } from '../scope.ts';
import { readJson } from './body.ts';
import type { HeavyLane } from './heavy-lane.ts';
import { unkeepableAt } from './keepable.ts';
import type { KnownRoute } from './known-routes.ts';
import { type SignedIn, sessionPerson } from './session.ts';
import { type EndTurn, Turns } from './turns.ts';

const UUID = /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/i;

export interface Asked<E extends Endpoint> {
  readonly scope: Scope;
  readonly params: PathParams<E['path']>;
  readonly query: z.output<E['query']>;
  readonly body: z.output<E['body']>;
  readonly request: Request;
}

/** Who asks without being signed in, by what they show. */
export interface Asker {
  /** By what their share is counted. @throws Refusal where they show nothing */
  readonly who: (request: Request) => string;
  /** What they see. @throws Refusal where what they show opens nothing */
  readonly scope: (request: Request, source: DataSource) => Promise<Scope>;
}

/** Who may use a route: whoever is signed in and has the right, or whoever shows something else. */
export type Needs = Right | Asker;

/** Where the answers come from: reads do not wait for connections that writes hold. */
export interface Sources {
  readonly reads: DataSource;
  readonly writes: DataSource;
}

/** The fair shares of a person, by kind of work: what is quick, what writes, what adds up a whole workspace, what takes bytes. */
export interface Shares {
  readonly read: Turns;
  readonly write: Turns;
  readonly heavy: Turns;
  readonly upload: Turns;
}

export const shares = (): Shares => ({
  read: new Turns({ each: 2, all: 6, waiting: 60 }),
  write: new Turns({ each: 2, all: 6, waiting: 40 }),
  heavy: new Turns({ each: 1, all: 2, waiting: 20 }),
  upload: new Turns({ each: 1, all: 4, waiting: 20 }),
});

/** The routes of one part of the API, each tied to its endpoint in the contract. */
export class Routes {
  readonly router = Router();

  constructor(
    private readonly sources: Sources,
    private readonly clock: Clock,
    private readonly shares: Shares,
    /** Where heavy work is done; null where it is done here. */
    private readonly lane: HeavyLane | null = null,
    /** What is known of the routes, for whoever describes them. */
    private readonly known: KnownRoute[] = [],
  ) {}

  private know(
    { method, path }: Pick<Endpoint, 'method' | 'path'>,
    needs: Needs | null,
    form: KnownRoute['form'],
  ): void {
    this.known.push({
      method,
      path,
      needs: needs === null ? 'anyone' : typeof needs === 'string' ? needs : 'link',
      form,
    });
  }

  /**
   * A route within the workspace of whoever is signed in. Who asks, and whether they may, is known before what is asked is
   * looked at, and each waits for their share before anything is worked on.
   */
  add<E extends Endpoint>(endpoint: E, needs: Needs, answer: (asked: Asked<E>) => Promise<z.input<E['answer']>>): this {
    this.know(endpoint, needs, 'json');
    return this.handle(endpoint, async (request, response) => {
      const isHeavy = endpoint.isHeavy(request.query);
      const share = isHeavy ? 'heavy' : endpoint.method === 'GET' ? 'read' : 'write';
      await this.inTurn(share, needs, request, response, async () => {
        const scope = await this.scopeFor(request, needs);
        if (isHeavy && this.lane) return this.lane.forward(request, response);
        if (endpoint.method !== 'GET') await readJson(request, response, endpoint.maxBytes);
        // A program says with any write by which key it is known again, so that it can be sent once more.
        const sent = endpoint.isFromDevice || request.program ? sentOf(request, scope) : null;
        send(response, await answer({ scope: sent ? scope.of(sent) : scope, ...readOf(endpoint, request) }));
      });
    });
  }

  /** The same, whose answer is sent as something else than JSON. */
  sendTo<E extends Endpoint>(
    endpoint: E,
    needs: Needs,
    answer: (asked: Asked<E>, response: Response) => Promise<void>,
  ): this {
    this.know(endpoint, needs, 'bytes');
    return this.handle(endpoint, async (request, response) => {
      await this.inTurn('heavy', needs, request, response, async () => {
        const scope = await this.scopeFor(request, needs);
        if (this.lane) return this.lane.forward(request, response);
        await answer({ scope, ...readOf(endpoint, request) }, response);
      });
    });
  }

  /** A route that takes the bytes of a file: they are received once it is known whose they are. */
  upload<E extends Endpoint>(
    endpoint: E,
    needs: Needs,
    receive: (request: Request, response: Response) => Promise<void>,
    answer: (asked: Asked<E>) => Promise<z.input<E['answer']>>,
    /** Called at the end, however it went. */
    letGo: (request: Request) => Promise<void>,
  ): this {
    this.know(endpoint, needs, 'upload');
    return this.handle(endpoint, async (request, response) => {
      await this.inTurn('upload', needs, request, response, async () => {
        const scope = await this.scopeFor(request, needs);
        try {
          await receive(request, response);
          send(response, await answer({ scope, ...readOf(endpoint, request) }));
        } finally {
          await letGo(request);
        }
      });
    });
  }

  /** A route whose answer is not JSON. */
  serve(
    path: string,
    needs: Needs,
    answer: (asked: { scope: Scope; params: Record<string, string> }, response: Response) => Promise<void>,
  ): this {
    this.know({ method: 'GET', path }, needs, 'bytes');
    this.router.get(path, async (request, response) => {
      const params = request.params as Record<string, string>;
      checkIds(params);
      await this.inTurn('read', needs, request, response, async () =>
        answer({ scope: await this.scopeFor(request, needs), params }, response),
      );
    });
    return this;
  }

  /** A stream that stays open: who asks is found out in turn, as with all that reads; while it is open it takes no turn. */
  stream(path: string, open: (request: Request, response: Response, signedIn: SignedIn) => void): this {
    this.router.get(path, (request, response) =>
      this.inTurn('read', null, request, response, async () => {
        const signedIn = await sessionPerson(this.sources.reads, request, this.clock);
        if (!signedIn) throw signedOut();
        if (!response.closed) open(request, response, signedIn);
      }),
    );
    return this;
  }

  /** A route for anyone, signed in or not. */
  open<E extends Endpoint>(
    endpoint: E,
    answer: (read: Omit<Asked<E>, 'scope'>) => Promise<z.input<E['answer']>>,
  ): this {
    this.know(endpoint, null, 'json');
    return this.handle(endpoint, async (request, response) => {
      if (endpoint.method !== 'GET') await readJson(request, response, endpoint.maxBytes);
      send(response, await answer(readOf(endpoint, request)));
    });
  }

  private handle(
    { method, path, deprecated }: Endpoint,
    work: (request: Request, response: Response) => Promise<void>,
  ): this {
    const handler: RequestHandler = async (request, response) => {
      if (deprecated) response.set(deprecationOf(deprecated));
      checkIds(request.params);
      await work(request, response);
    };
    this.router[method.toLowerCase() as 'get'](path, handler);
    return this;
  }

  private async scopeFor(request: Request, needs: Needs): Promise<Scope> {
    const { reads, writes } = this.sources;
    const source = request.method === 'GET' ? reads : writes;
    if (typeof needs !== 'string') return needs.scope(request, source);
    const { program } = request;
    const signedIn = program ?? (await sessionPerson(reads, request, this.clock));
    if (!signedIn) throw signedOut();
    const person = Scope.on(source, signedIn.workspace, signedIn.person, this.clock);
    const scope = program ? person.byProgram(program.scope) : person;
    if (program && person.reach(needs) !== 'none' && scope.reach(needs) === 'none')
      throw forbidden(
        `This token ${TOKEN_SCOPE_WORDS[program.scope].replace('you may', 'its owner may')}: it can’t do this.`,
      );
    if (scope.reach(needs) === 'none') throw forbidden(`Only ${sayWhoMayAll(needs)} can do this. Ask one of yours.`);
    return scope;
  }

  private async inTurn(
    share: keyof Shares,
    needs: Needs | null,
    request: Request,
    response: Response,
    work: () => Promise<void>,
  ): Promise<void> {
    const who = typeof needs === 'object' && needs !== null ? needs.who(request) : whoAsks(request);
    if (!who) throw signedOut();
    const gone = new AbortController();
    const leave = () => gone.abort();
    response.once('close', leave);
    let end: EndTurn | null = null;
    try {
      end = await this.shares[share].enter(who, gone.signal);
      response.off('close', leave);
      await work();
    } finally {
      response.off('close', leave);
      end?.();
    }
  }
}

/** A program has a share of its own: it keeps its owner from nothing. */
const whoAsks = ({ program, session }: Request): string | undefined =>
  program ? `token ${program.tokenId}` : session.personId;

function signedOut(): Refusal {
  return new Refusal('signed-out', 'You are signed out. Sign in again; what you typed is kept.');
}

/** What is asked, as the contract reads it. */
function readOf<E extends Endpoint>(endpoint: E, request: Request): Omit<Asked<E>, 'scope'> {
  const read = {
    request,
    params: request.params,
    query: parse(endpoint.query, request.query),
    body: parse(endpoint.body, request.body ?? {}),
  };
  return read as unknown as Omit<Asked<E>, 'scope'>;
}

/** What goes one day says so with each answer until then. */
export function deprecationOf({ since, goesOn, instead }: Deprecated): Readonly<Record<string, string>> {
  return {
    // A moment, as structured fields have it (RFC 9651, section 3.3.7).
    Deprecation: `@${Date.parse(`${since}T00:00Z`) / 1000}`,
    Sunset: new Date(`${goesOn}T00:00Z`).toUTCString(),
    Link: `<${instead}>; rel="deprecation"`,
  };
}

const sentSchema = z.object({
  [KEY_HEADER]: z.uuid(),
  [AGO_HEADER]: z.coerce.number().int().min(0).max(LONGEST_AGO_SECONDS).default(0),
});

/** What a device says of a request, where it says anything. */
function sentOf(request: Request, { instant }: Scope): Sent | null {
  const key = request.header(KEY_HEADER);
  const ago = request.header(AGO_HEADER);
  if (key === undefined && ago === undefined) return null;
  const read = parse(sentSchema, { [KEY_HEADER]: key, [AGO_HEADER]: ago });
  return { key: read[KEY_HEADER], at: new Date(instant.getTime() - read[AGO_HEADER] * 1000) };
}

function checkIds(params: Readonly<Record<string, unknown>>): void {
  for (const [name, value] of Object.entries(params)) {
    if (!UUID.test(String(value))) throw notFound(name.replace(/Id$/, ''));
  }
}

function parse<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const read = schema.safeParse(value);
  if (!read.success)
    throw invalid(read.error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message })));
  const path = unkeepableAt(read.data);
  if (path !== null) throw invalid([{ path, message: 'This holds a character that can’t be kept: write it without.' }]);
  return read.data;
}

function send(response: Response, answer: unknown): void {
  response.setHeader('Cache-Control', 'no-store');
  response.json(answer);
}
