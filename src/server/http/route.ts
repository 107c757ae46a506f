import { type Request, type RequestHandler, type Response, Router } from 'express';
import type { DataSource } from 'typeorm';
import type { z } from 'zod';
import type { Endpoint, PathParams } from '../../contract/index.ts';
import type { Clock } from '../clock.ts';
import { Scope } from '../scope.ts';
import { unkeepableAt } from './keepable.ts';
import { forbidden, invalid, notFound, Refusal } from './refusal.ts';
import { sessionPerson } from './session.ts';

const UUID = /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/i;

/** Who may ask: anyone signed in, or managers only. */
export type Audience = 'member' | 'manager';

export interface Asked<E extends Endpoint> {
  readonly scope: Scope;
  readonly params: PathParams<E['path']>;
  readonly query: z.output<E['query']>;
  readonly body: z.output<E['body']>;
  readonly request: Request;
}

/** The routes of one part of the API, each tied to its endpoint in the contract. */
export class Routes {
  readonly router = Router();

  constructor(
    private readonly source: DataSource,
    private readonly clock: Clock,
  ) {}

  /** A route within the workspace of whoever is signed in: who asks is known before what is asked is looked at. */
  add<E extends Endpoint>(
    endpoint: E,
    audience: Audience,
    answer: (asked: Asked<E>) => Promise<z.input<E['answer']>>,
  ): this {
    return this.route(endpoint, async (request) => {
      const scope = await this.scopeOf(request);
      if (audience === 'manager' && !scope.person?.isManager) {
        throw forbidden('Only a manager can do this. Ask one of yours.');
      }
      return answer({ scope, ...readOf(endpoint, request) });
    });
  }

  /** A route whose answer is not JSON, for members. */
  serve(
    path: string,
    answer: (asked: { scope: Scope; params: Record<string, string> }, response: Response) => Promise<void>,
  ): this {
    this.router.get(path, async (request, response) => {
      const params = request.params as Record<string, string>;
      checkIds(params);
      await answer({ scope: await this.scopeOf(request), params }, response);
    });
    return this;
  }

  private async scopeOf(request: Request): Promise<Scope> {
    const signedIn = await sessionPerson(this.source, request);
    if (!signedIn)
      throw new Refusal(401, 'Signed out', 'You are signed out. Sign in again; what you typed is still on the screen.');
    return Scope.on(this.source, signedIn.workspace, signedIn.person, this.clock);
  }

  /** A route for anyone, signed in or not. */
  open<E extends Endpoint>(
    endpoint: E,
    answer: (read: Omit<Asked<E>, 'scope'>) => Promise<z.input<E['answer']>>,
  ): this {
    return this.route(endpoint, (request) => answer(readOf(endpoint, request)));
  }

  private route({ method, path }: Endpoint, answer: (request: Request) => Promise<unknown>): this {
    const handler: RequestHandler = async (request, response) => {
      checkIds(request.params);
      send(response, await answer(request));
    };
    this.router[method.toLowerCase() as 'get'](path, handler);
    return this;
  }
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
