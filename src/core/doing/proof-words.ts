import { dayOfIso } from '../civil-date/iso-date.ts';
import { joinAnd, plural, sayDate } from '../wording/date-words.ts';
import { type AnswerValue, DEMAND_WORDS, type Demand, type Missing, type NumberDemand, outsideBy } from './proof.ts';

/** A figure as it was typed, without a tail of binary dust: "0.41", "1,250". */
export function sayNumber(value: number): string {
  return value.toLocaleString('en-GB', { maximumFractionDigits: 6 });
}

/** "0.05 to 0.8 Ω", "at most 2 mbar", "at least 3"; empty without limits. */
export function sayLimits({ least, most, unit }: NumberDemand): string {
  const tail = unit === '' ? '' : ` ${unit}`;
  if (least !== null && most !== null) return `${sayNumber(least)} to ${sayNumber(most)}${tail}`;
  if (most !== null) return `at most ${sayNumber(most)}${tail}`;
  return least === null ? '' : `at least ${sayNumber(least)}${tail}`;
}

/** "0.32 Ω over the limit", "2 l under the limit"; empty within the limits. */
export function sayOutside(demand: NumberDemand, value: number): string {
  const by = outsideBy(demand, value);
  if (by === 0) return '';
  const unit = demand.unit === '' ? '' : ` ${demand.unit}`;
  return `${sayNumber(Math.abs(by))}${unit} ${by > 0 ? 'over' : 'under'} the limit`;
}

/** What a demand asks for, in a few words: "number, 0 to 2 mbar", "photo or file". */
export function sayDemand(demand: Demand): string {
  if (demand.kind === 'number') {
    const limits = sayLimits(demand);
    return limits === '' ? `number${demand.unit === '' ? '' : ` in ${demand.unit}`}` : `number, ${limits}`;
  }
  if (demand.kind === 'choice' || demand.kind === 'choices') return demand.options.join(', ');
  if (demand.kind === 'tag' && demand.atStart) return `${DEMAND_WORDS.tag}, to start`;
  return DEMAND_WORDS[demand.kind];
}

/** An answer as it is read: "0.41 Ω", "yes", "post, by hand", "24 Nov 2026". */
export function sayAnswer(demand: Demand, value: AnswerValue): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number')
    return sayNumber(value) + (demand.kind === 'number' && demand.unit !== '' ? ` ${demand.unit}` : '');
  if (typeof value !== 'string') return value.join(', ');
  return demand.kind === 'date' ? sayDate(dayOfIso(value)) : value;
}

const NAMED = 3;

/** "Counted, the remark on Earth loop and 4 more"; empty when nothing is missing. */
export function sayMissing(missing: readonly Missing[]): string {
  const named = missing.length <= NAMED + 1 ? missing : missing.slice(0, NAMED);
  const words = named.map((one) => one.words);
  return joinAnd(
    missing.length > named.length ? [...words, plural(missing.length - named.length, 'more', 'more')] : words,
  );
}
