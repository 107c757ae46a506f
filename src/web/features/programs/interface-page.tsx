import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import useSWR from 'swr';
import { plural } from '../../../core/index.ts';
import { FindWords } from '../../kit/find-words.tsx';
import { Skeleton } from '../../kit/states.tsx';

type Json = Readonly<Record<string, unknown>>;
interface Operation {
  readonly operationId: string;
  readonly summary: string;
  readonly description: string;
  readonly tags: readonly string[];
  readonly parameters: readonly {
    readonly name: string;
    readonly in: string;
    readonly required: boolean;
    readonly schema: Json;
  }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Json }>> };
  readonly responses: Readonly<
    Record<string, { readonly content?: Readonly<Record<string, { readonly schema: Json }>> }>
  >;
}
interface Described {
  readonly info: { readonly description: string };
  readonly tags: readonly { readonly name: string; readonly description: string }[];
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, Json>> };
}

const ADDRESS = '/api/openapi.json';

async function described(): Promise<Described> {
  const answer = await fetch(ADDRESS);
  if (!answer.ok) throw new Error(`The description could not be fetched (${answer.status}).`);
  return answer.json() as Promise<Described>;
}

/** What programs can ask of this server, to be read: made from the same file that they read. */
export default function InterfacePage() {
  const { data, error, mutate } = useSWR<Described, Error>(ADDRESS, described, { revalidateOnFocus: false });
  const [find, setFind] = useState('');
  if (error && !data)
    return (
      <p role="alert" className="px-5 py-4 text-row text-late">
        {error.message}{' '}
        <button type="button" className="link-line" onClick={() => void mutate()}>
          Try again
        </button>
      </p>
    );
  if (!data) return <Skeleton rows={12} />;
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const lines = Object.entries(data.paths).flatMap(([path, byMethod]) =>
    Object.entries(byMethod).map(([method, operation]) => ({ path, method: method.toUpperCase(), operation })),
  );
  const fitting = lines.filter(({ path, method, operation }) => {
    const said = `${method} ${path} ${operation.summary} ${operation.operationId}`.toLowerCase();
    return words.every((word) => said.includes(word));
  });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Interface for programs · Jolly Rota</title>
      <div className="page-head">
        <h1>Interface for programs</h1>
        <span className="text-note text-ink-2">{plural(fitting.length, 'operation')}</span>
        <FindWords label="Find an operation" value={find} onChange={setFind} />
        <span className="ml-auto flex gap-4 text-row">
          <Link className="link-line" to="/account">
            Tokens
          </Link>
          <a className="link-line" href={ADDRESS} download="jolly-rota-openapi.json">
            OpenAPI 3.1 file
          </a>
        </span>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-line-2 px-5 pb-10 max-[720px]:px-4">
        <div className="mt-3 max-w-[760px] text-row leading-5.5">
          <p>
            A program asks below <code className="font-mono">/api</code> with{' '}
            <code className="font-mono">Authorization: Bearer jr_…</code>, a token that you make under your account. It
            goes as far as the token says, and no further than you may yourself.
          </p>
          {data.info.description.split('\n\n').map((paragraph) => (
            <p key={paragraph} className="mt-1.5 text-ink-2">
              {marked(paragraph)}
            </p>
          ))}
        </div>
        {data.tags.map(({ name, description }) => {
          const of = fitting.filter(({ operation }) => operation.tags.includes(name));
          if (of.length === 0) return null;
          return (
            <section key={name} className="mt-5">
              <h2 className="border-b border-line-2 pb-1 text-[17px] leading-5.5 text-primary">
                {name}{' '}
                <span className="font-sans text-note font-normal font-stretch-normal text-ink-2">{description}</span>
              </h2>
              {of.map(({ path, method, operation }) => (
                <Line key={operation.operationId} {...{ path, method, operation, schemas: data.components.schemas }} />
              ))}
            </section>
          );
        })}
      </div>
    </div>
  );
}

/** Words between backticks as code. */
const marked = (text: string): ReactNode[] =>
  text.split(/(`[^`]+`)/).map((part) =>
    part.startsWith('`') ? (
      <code key={part} className="font-mono">
        {part.slice(1, -1)}
      </code>
    ) : (
      part
    ),
  );

interface LineProps {
  readonly path: string;
  readonly method: string;
  readonly operation: Operation;
  readonly schemas: Described['components']['schemas'];
}

function Line({ path, method, operation, schemas }: LineProps) {
  const [isOpen, setOpen] = useState(false);
  const { operationId, summary, description, parameters, requestBody, responses } = operation;
  return (
    <div className="border-b border-line">
      <button
        type="button"
        aria-expanded={isOpen}
        className="grid w-full cursor-pointer grid-cols-[64px_minmax(0,5fr)_minmax(0,4fr)] items-baseline gap-x-3 py-1.5 text-left text-row leading-5.5 hover:bg-base-200 max-[720px]:grid-cols-[64px_minmax(0,1fr)]"
        onClick={() => setOpen(!isOpen)}
      >
        <span className="font-mono text-note text-ink-2">{method}</span>
        <code className="font-mono text-note break-all">{path}</code>
        <span className="max-[720px]:col-start-2">{summary.replace(/^[^:]+: /, '')}</span>
      </button>
      {isOpen && (
        <div className="pb-3 pl-[76px] text-row leading-5.5 max-[720px]:pl-0">
          <p>{description}</p>
          <p className="text-note text-ink-2">
            <code className="font-mono">{operationId}</code>
          </p>
          {parameters.length > 0 && (
            <ul className="mt-1.5">
              {parameters.map((one) => (
                <li key={`${one.in} ${one.name}`} className="font-mono text-note">
                  {one.name}: {sayType(one.schema)}{' '}
                  <span className="font-sans text-ink-2">
                    in the {one.in}
                    {one.required ? '' : ', may be left out'}
                  </span>
                </li>
              ))}
            </ul>
          )}
          {Object.entries(requestBody?.content ?? {}).map(([type, { schema }]) => (
            <Shape key={type} title={`Takes ${type}`} schema={schema} schemas={schemas} />
          ))}
          {Object.entries(responses['200']?.content ?? {}).map(([type, { schema }]) => (
            <Shape key={type} title={`Answers ${type}`} schema={schema} schemas={schemas} />
          ))}
        </div>
      )}
    </div>
  );
}

function Shape({
  title,
  schema,
  schemas,
}: {
  readonly title: string;
  readonly schema: Json;
  readonly schemas: LineProps['schemas'];
}) {
  return (
    <div className="mt-2">
      <h3 className="text-note text-ink-2">{title}</h3>
      <pre className="overflow-x-auto font-mono text-note leading-4.5">{sayShape(schema, schemas, 0, [])}</pre>
    </div>
  );
}

const MOST_DEEP = 5;

/** A schema as it would be read aloud: each field a line, what it may be after it. */
function sayShape(schema: Json, schemas: LineProps['schemas'], deep: number, within: readonly string[]): string {
  const name = typeof schema['$ref'] === 'string' ? (schema['$ref'].split('/').at(-1) ?? '') : null;
  if (name !== null) {
    const of = schemas[name];
    return of === undefined || deep >= MOST_DEEP || within.includes(name)
      ? name
      : sayShape(of, schemas, deep, [...within, name]);
  }
  const indent = '  '.repeat(deep + 1);
  if (schema['type'] === 'object' && typeof schema['properties'] === 'object' && schema['properties'] !== null) {
    if (deep >= MOST_DEEP) return '{ … }';
    const required = Array.isArray(schema['required']) ? (schema['required'] as string[]) : [];
    const fields = Object.entries(schema['properties'] as Readonly<Record<string, Json>>).map(
      ([key, of]) => `${indent}${key}${required.includes(key) ? '' : '?'}: ${sayShape(of, schemas, deep + 1, within)}`,
    );
    return fields.length === 0 ? '{}' : `{\n${fields.join('\n')}\n${'  '.repeat(deep)}}`;
  }
  if (schema['type'] === 'array') return `${sayShape((schema['items'] ?? {}) as Json, schemas, deep, within)}[]`;
  const several = (schema['anyOf'] ?? schema['oneOf']) as readonly Json[] | undefined;
  if (several) return several.map((one) => sayShape(one, schemas, deep, within)).join(' | ');
  return sayType(schema);
}

function sayType({ type, enum: choices, const: only, format, $ref: ref, anyOf }: Json): string {
  if (typeof ref === 'string') return ref.split('/').at(-1) ?? '';
  if (only !== undefined) return JSON.stringify(only);
  if (Array.isArray(choices)) return choices.map((one) => JSON.stringify(one)).join(' | ');
  if (Array.isArray(anyOf)) return anyOf.map((one: Json) => sayType(one)).join(' | ');
  const plain = Array.isArray(type) ? type.join(' | ') : typeof type === 'string' ? type : 'anything';
  return typeof format === 'string' ? `${plain} (${format})` : plain;
}
