import type { z } from 'zod';

/** Whole numbers below a bound, the same every time for a seed. */
export type Random = (below: number) => number;

export function randomFrom(seed: number): Random {
  let state = seed;
  return (below) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

/** Values that stand where something sensible is expected. */
const ODD_TEXTS = (): readonly string[] => NASTY.filter((one): one is string => typeof one === 'string');
const NASTY: readonly unknown[] = [
  ...[null, -1, 0, 1.5, 1e12, Number.MAX_SAFE_INTEGER, 1e308, '', ' ', '\u0000', '\ud800', '\u202e', true],
  ...['x'.repeat(5000), '0001-01-01', '9999-12-31', '2026-02-30', '24:00', '-00:01', '__proto__', 'constructor'],
  ...[
    '00000000-0000-0000-0000-000000000000',
    '<img src=x onerror=alert(1)>',
    "' or 1=1 --",
    '{asset}{',
    '%00',
    '../..',
  ],
  ...[[], {}, [[]], [null], { toString: 1 }, { length: 1e9 }, Array(500).fill('x')],
];

/** What is there to be named: ids by the beginning of the fields that hold them. */
export type Known = Readonly<Record<string, readonly string[]>>;

interface Definition {
  readonly type: string;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly element?: z.ZodType;
  readonly innerType?: z.ZodType;
  readonly in?: z.ZodType;
  readonly options?: readonly z.ZodType[];
  readonly values?: readonly unknown[];
  readonly entries?: Readonly<Record<string, string | number>>;
  readonly valueType?: z.ZodType;
}

const PHRASES = [
  'FREQ=WEEKLY;BYDAY=MO',
  'FREQ=YEARLY;BYMONTHDAY=1,5,-19;BYDAY=5TU,SU',
  'FREQ=MONTHLY;BYSETPOS=-1;BYDAY=FR',
  'FREQ=DAILY;COUNT=9999',
  'FREQ=',
];
const DATES = ['2026-11-24', '2026-12-31', '2027-02-28', '2028-02-29', '2026-10-01', '1900-01-01', '2199-12-31'];
const TIMES = ['00:00', '08:30', '23:59'];
const WORDS = [
  'Fire points',
  'x',
  'Öl an der Brücke',
  '{asset}, {month} {number}',
  '<p>Look</p><td colspan="99999999">',
  'a\nb',
];

/**
 * A value that a schema of the contract may take, or nearly: shapes and kinds are right, texts and figures are drawn from
 * what is likely and what is odd.
 */
export function madeFrom(schema: z.ZodType, random: Random, known: Known, name = ''): unknown {
  const definition = schema._zod.def as unknown as Definition;
  const pick = <T>(from: readonly T[]): T => from[random(from.length)] as T;
  const inner = (one: z.ZodType | undefined) => (one ? madeFrom(one, random, known, name) : null);
  switch (definition.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(definition.shape ?? {}).flatMap(([key, member]) => {
          const isOptional = ['optional', 'default'].includes(member._zod.def.type);
          return isOptional && random(3) === 0 ? [] : [[key, madeFrom(member, random, known, key)]];
        }),
      );
    case 'array':
      return Array.from({ length: random(20) === 0 ? 60 : random(4) }, () => inner(definition.element));
    case 'optional':
    case 'default':
    case 'prefault':
    case 'readonly':
    case 'nonoptional':
    case 'catch':
      return inner(definition.innerType);
    case 'nullable':
      return random(3) === 0 ? null : inner(definition.innerType);
    case 'pipe':
      return inner(definition.in);
    case 'union':
      return inner(pick(definition.options ?? []));
    case 'literal':
      return pick(definition.values ?? [null]);
    case 'enum':
      return pick(Object.values(definition.entries ?? { x: 'x' }));
    case 'record':
      return Object.fromEntries(
        Array.from({ length: random(4) }, (_, i) => [random(2) === 0 ? `k${i}` : '', inner(definition.valueType)]),
      );
    case 'boolean':
      return random(2) === 0;
    case 'number':
      return pick([0, 1, 2, -1, 5, 12, 30, 366, -366, 9999, 1.5, 100_000]);
    case 'string':
      return textFor(name, random, known);
    default:
      return pick(NASTY);
  }
}

function textFor(name: string, random: Random, known: Known): string {
  const pick = (from: readonly string[]): string => from[random(from.length)] ?? '';
  if (random(12) === 0) return pick(ODD_TEXTS()).slice(0, 300);
  const ids = known[name] ?? (name === 'id' || name === 'also' ? Object.values(known).flat() : undefined);
  if (ids) return pick(ids);
  if (/On$|^on$|date|^from$|^to$|^start$|^asOf$|^dates$|except/i.test(name)) return pick(DATES);
  if (/time/i.test(name)) return pick(TIMES);
  if (name === 'text') return pick(PHRASES);
  if (name === 'zone') return pick(['Europe/London', 'Pacific/Apia', 'Mars/Olympus']);
  if (name === 'url') return pick(['https://example.org/', 'javascript:alert(1)', 'mailto:a@b.example']);
  if (name === 'key') return crypto.randomUUID().slice(0, 8);
  return pick(WORDS);
}

/** The same value with one part of it, somewhere, replaced by something nasty. */
export function spoilt(value: unknown, random: Random): unknown {
  if (value === null || typeof value !== 'object' || random(4) === 0) return NASTY[random(NASTY.length)];
  const entries = Object.entries(value);
  if (entries.length === 0) return NASTY[random(NASTY.length)];
  const [key, member] = entries[random(entries.length)] as [string, unknown];
  const other = spoilt(member, random);
  return Array.isArray(value) ? value.map((one, i) => (String(i) === key ? other : one)) : { ...value, [key]: other };
}
