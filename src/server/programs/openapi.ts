import { z } from 'zod';
import * as contract from '../../contract/index.ts';
import { AGO_HEADER, type Endpoint, KEY_HEADER } from '../../contract/index.ts';
import { sayWhoMayAll, TOKEN_SCOPES, type TokenScope, tokenMay } from '../../core/index.ts';
import type { KnownRoute } from '../platform/http/known-routes.ts';
import { BYTES_WORDS, GROUP_WORDS } from './group-words.ts';

type Json = Readonly<Record<string, unknown>>;

/** An endpoint by its place in the contract: "tasks", "finish". */
interface Named {
  readonly group: string;
  readonly key: string;
  readonly endpoint: Endpoint;
}

const GROUP = /Endpoints$/;
const NOTHING = JSON.stringify(z.toJSONSchema(z.object({}), { io: 'input' }));
/** Parts of schemas from this length on are said once, where they come more than once and have a name. */
const SAID_ONCE = 200;

const named = (): Named[] =>
  Object.entries(contract)
    .filter(([name]) => GROUP.test(name))
    .flatMap(([name, group]) =>
      Object.entries(group as Readonly<Record<string, Endpoint>>).map(([key, endpoint]) => ({
        ...{ group: name.replace(GROUP, ''), key, endpoint },
      })),
    );

/** "changeSeveral" → "change several" */
const wordsOf = (name: string): string => name.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`);
const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
const keyOf = (method: string, path: string): string => `${method} ${path}`;

/** Everything that can be asked, as OpenAPI 3.1 describes it: made from the contract and from what the routes say of themselves. */
export function openApiOf(known: readonly KnownRoute[]): Json {
  const byKey = new Map(named().map((one) => [keyOf(one.endpoint.method, one.endpoint.path), one]));
  const paths: Record<string, Record<string, Json>> = {};
  const tags = new Map<string, string>();
  for (const route of [...known].sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0))) {
    const of = byKey.get(keyOf(route.method, route.path)) ?? null;
    const group = of?.group ?? groupOfBytes(route.path);
    const tag = sentence(wordsOf(group));
    tags.set(tag, wordsOfGroup(group));
    const path = route.path.replace(/:(\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [route.method.toLowerCase()]: operationOf(route, of, tag) };
  }
  return saidOnce({
    openapi: '3.1.0',
    info: {
      title: 'Jolly Rota',
      version: '1',
      summary: 'Recurring work: templates, schedules and the dated tasks they make.',
      description: DESCRIPTION,
      license: { name: 'MIT', identifier: 'MIT' },
    },
    servers: [{ url: '/api' }],
    tags: [...tags].sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, description]) => ({ name, description })),
    paths,
    components: {
      securitySchemes: {
        token: { type: 'http', scheme: 'bearer', description: 'A personal token, made under your account.' },
        session: {
          type: 'apiKey',
          in: 'cookie',
          name: 'jolly-rota',
          description: 'Whoever is signed in at a browser.',
        },
      },
      headers: {
        RateLimit: { description: 'How much of the share of this minute is left.', schema: { type: 'string' } },
      },
      responses: {
        Problem: {
          description: 'Why not, in a sentence; fields at fault by their path (RFC 9457).',
          content: { 'application/problem+json': { schema: PROBLEM } },
        },
      },
    },
  });
}

const DESCRIPTION = `Dates are civil dates of the workspace (\`YYYY-MM-DD\`), moments are civil too (\`YYYY-MM-DDTHH:MM\`), ids are UUIDs.

A write that bears an \`${KEY_HEADER}\` of its own (a UUID) is done once, however often it is sent. Lists that are longer than a page tell how the next page is asked for.

What changes in the future is told beforehand by \`Deprecation\` (RFC 9745) and \`Sunset\` (RFC 8594).`;

const PROBLEM: Json = {
  type: 'object',
  properties: {
    type: { type: 'string', format: 'uri' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string' },
    errors: {
      type: 'array',
      items: {
        type: 'object',
        properties: { path: { type: 'string' }, message: { type: 'string' } },
        required: ['path', 'message'],
      },
    },
  },
  required: ['type', 'title', 'status', 'detail'],
};

function wordsOfGroup(group: string): string {
  const words = (GROUP_WORDS as Readonly<Record<string, string>>)[group] ?? BYTES_WORDS[group];
  if (words === undefined) throw new Error(`Nothing says what the operations of “${group}” are about.`);
  return words;
}

/** What is sent as bytes alone stands in no group of the contract. */
const groupOfBytes = (path: string): string => path.split('/')[1] ?? 'other';

function operationOf(route: KnownRoute, of: Named | null, tag: string): Json {
  const what =
    of === null
      ? wordsOf(
          route.path
            .split('/')
            .filter((part) => !part.startsWith(':'))
            .slice(2)
            .join(' ') || 'read',
        )
      : wordsOf(of.key);
  const id =
    of === null
      ? `${groupOfBytes(route.path)}${route.path.replace(/[^a-z]+(\w)/gi, (_, letter: string) => letter.toUpperCase())}`
      : `${of.group}.${of.key}`;
  return {
    operationId: id,
    summary: `${tag}: ${what}`,
    description: whoMay(route),
    tags: [tag],
    security: securityOf(route),
    ...(of?.endpoint.deprecated ? { deprecated: true } : {}),
    parameters: [
      ...pathParameters(route.path),
      ...(of === null ? [] : [...queryParameters(of.endpoint), ...headersOf(route)]),
    ],
    ...bodyOf(route, of),
    responses: {
      200: answerOf(route, of),
      '4XX': { $ref: '#/components/responses/Problem' },
      '5XX': { $ref: '#/components/responses/Problem' },
    },
  };
}

function whoMay({ needs }: KnownRoute): string {
  if (needs === 'anyone') return 'For anybody.';
  if (needs === 'link') return 'For whoever shows what opens it.';
  const scope = leastScope(needs);
  const program = scope === null ? 'No token goes that far.' : `A token that may ${scope} is enough.`;
  const who = sayWhoMayAll(needs);
  return `${who === '' ? 'Of one’s own.' : `Of anything: ${who}; of one’s own: whoever may.`} ${program}`;
}

const leastScope = (needs: Exclude<KnownRoute['needs'], 'anyone' | 'link'>): TokenScope | null =>
  TOKEN_SCOPES.find((scope) => tokenMay(scope, needs)) ?? null;

function securityOf({ needs }: KnownRoute): Json[] {
  if (needs === 'anyone' || needs === 'link') return [{}];
  const scope = leastScope(needs);
  return scope === null ? [{ session: [] }] : [{ token: [scope] }, { session: [] }];
}

const pathParameters = (path: string): Json[] =>
  [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    ...{ name, in: 'path', required: true, schema: { type: 'string', format: 'uuid' } },
  }));

const schemaOf = (schema: z.ZodType, io: 'input' | 'output'): Json => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io }) as Record<string, unknown>;
  return rest;
};

function queryParameters({ query }: Endpoint): Json[] {
  const { properties = {}, required = [] } = schemaOf(query, 'input') as {
    properties?: Record<string, Json>;
    required?: string[];
  };
  return Object.entries(properties).map(([name, schema]) => ({
    ...{ name, in: 'query', required: required.includes(name), schema },
  }));
}

const headersOf = ({ method, needs }: KnownRoute): Json[] =>
  method === 'GET' || needs === 'anyone' || needs === 'link'
    ? []
    : [
        { name: KEY_HEADER, in: 'header', required: false, schema: { type: 'string', format: 'uuid' } },
        {
          ...{ name: AGO_HEADER, in: 'header', required: false, schema: { type: 'integer', minimum: 0 } },
          description: 'How many seconds ago it was done, where that is not now.',
        },
      ];

function bodyOf(route: KnownRoute, of: Named | null): Json {
  if (of === null || route.method === 'GET') return {};
  const schema = schemaOf(of.endpoint.body, 'input');
  if (route.form === 'upload') {
    const file = { type: 'string', contentMediaType: 'application/octet-stream' };
    const { properties = {}, required = [] } = schema as { properties?: Json; required?: string[] };
    const whole = { type: 'object', properties: { ...properties, file }, required: [...required, 'file'] };
    return { requestBody: { required: true, content: { 'multipart/form-data': { schema: whole } } } };
  }
  const isNothing = JSON.stringify(z.toJSONSchema(of.endpoint.body, { io: 'input' })) === NOTHING;
  return isNothing ? {} : { requestBody: { required: true, content: { 'application/json': { schema } } } };
}

const FORMS: readonly (readonly [RegExp, string])[] = [
  [/\.pdf$/, 'application/pdf'],
  [/\.ics$/, 'text/calendar'],
];

const isInRows = (endpoint: Endpoint): boolean => queryParameters(endpoint).some(({ name }) => name === 'as');

/** Of rows, as is asked for. */
const ROWS = ['text/csv', 'application/json'];

function answerOf({ path, form }: KnownRoute, of: Named | null): Json {
  const headers = { RateLimit: { $ref: '#/components/headers/RateLimit' } };
  if (form === 'bytes' || of === null) {
    const types =
      of !== null && isInRows(of.endpoint)
        ? ROWS
        : [FORMS.find(([end]) => end.test(path))?.[1] ?? 'application/octet-stream'];
    const schema = { schema: { type: 'string' } };
    return { description: 'As a file.', headers, content: Object.fromEntries(types.map((type) => [type, schema])) };
  }
  return {
    ...{ description: 'Done.', headers },
    content: { 'application/json': { schema: schemaOf(of.endpoint.answer, 'output') } },
  };
}

/** Schemas of the contract that have a name of their own stand once, under that name, where they come again and again. */
function saidOnce(document: Json): Json {
  const names = new Map<string, string>();
  for (const [name, value] of Object.entries(contract)) {
    if (!name.endsWith('Schema') || !(value instanceof z.ZodType)) continue;
    for (const io of ['output', 'input'] as const) {
      const text = JSON.stringify(schemaOf(value, io));
      const plain = sentence(name.slice(0, -'Schema'.length));
      if (text.length >= SAID_ONCE && !names.has(text)) names.set(text, io === 'output' ? plain : `${plain}Asked`);
    }
  }
  const schemas: Record<string, unknown> = {};
  const replaced = (value: unknown, within: string | null): unknown => {
    if (Array.isArray(value)) return value.map((one) => replaced(one, within));
    if (typeof value !== 'object' || value === null) return value;
    const name = names.get(JSON.stringify(value));
    if (name !== undefined && name !== within) {
      if (!(name in schemas)) {
        schemas[name] = null;
        schemas[name] = replaced(value, name);
      }
      return { $ref: `#/components/schemas/${name}` };
    }
    return Object.fromEntries(
      Object.entries(value).map(([key, one]) => [key, replaced(one, name === undefined ? within : null)]),
    );
  };
  const { components, ...rest } = document;
  const whole = replaced(rest, null) as Json;
  const inOrder = Object.fromEntries(Object.entries(schemas).sort(([a], [b]) => (a < b ? -1 : 1)));
  return { ...whole, components: { ...(components as Json), schemas: inOrder } };
}
