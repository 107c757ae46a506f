import type { BellLine } from '../../../contract/index.ts';
import type { MessageKind } from '../../../core/index.ts';

/** In this order kinds of things stand under a day: first what asks for something. */
const RANKS: Readonly<Record<MessageKind, number>> = {
  late: 0,
  check: 1,
  held: 2,
  asked: 3,
  nobody: 4,
  shift: 5,
  notice: 6,
  pool: 7,
  run: 8,
  mail: 9,
  named: 10,
  comment: 11,
  answer: 11,
  calls: 12,
  reminder: 13,
  soon: 14,
  new: 15,
  hands: 16,
  moved: 17,
  client: 18,
  finished: 19,
  import: 20,
};

/** What there is to do about a line, in a word. */
const VERBS: Readonly<Partial<Record<MessageKind, string>>> = {
  nobody: 'Assign',
  new: 'Open',
  soon: 'Open',
  reminder: 'Open',
  comment: 'Answer',
  answer: 'Read',
  notice: 'Write',
  calls: 'Ring',
};

export function verbOf({ kind, side }: Pick<BellLine, 'kind' | 'side'>): string {
  if (side === 'gave' && kind === 'check') return 'Check';
  if (side === 'gave' && kind === 'asked') return 'Decide';
  return VERBS[kind] ?? 'Look';
}

export interface KindOfDay {
  readonly kind: MessageKind;
  /** Of how many things its lines tell. */
  readonly times: number;
  readonly lines: readonly BellLine[];
}

export interface BellDay {
  /** YYYY-MM-DD */
  readonly on: string;
  readonly kinds: readonly KindOfDay[];
}

/** Lines by the day and by what they are about; the newest day first, lines as they come. */
export function byDay(lines: readonly BellLine[]): BellDay[] {
  const days = new Map<string, Map<MessageKind, BellLine[]>>();
  for (const line of lines) {
    const on = line.at.slice(0, 10);
    const kinds = days.get(on) ?? new Map<MessageKind, BellLine[]>();
    days.set(on, kinds.set(line.kind, [...(kinds.get(line.kind) ?? []), line]));
  }
  return [...days].map(([on, kinds]) => ({
    on,
    kinds: [...kinds]
      .map(([kind, of]) => ({ kind, lines: of, times: of.reduce((sum, { times }) => sum + times, 0) }))
      .sort((a, b) => RANKS[a.kind] - RANKS[b.kind]),
  }));
}
