import { type Answer, type Demand, isoOfDay } from '../src/core/index.ts';
import type { SeededRandom } from './random.ts';

/** What people write beside a reading that is outside its limits. */
const REMARKS: Readonly<Record<string, readonly string[]>> = {
  Ω: ['Post shut off, hook-up moved to the next.', 'Plug corroded, owner told; post off until it is changed.'],
  mbar: ['Bottle off and tagged, fitter comes on Friday.'],
  mm: ['Taped off, bolt ordered.', 'Wedge put in, look again tomorrow.'],
  rings: ['Two at the chandler’s for new lines.'],
  strands: ['Cable ordered, no lifts over eight tonnes until then.'],
  pounds: ['From the card machine, asked the bank.'],
};

const WORDS: Readonly<Record<string, readonly string[]>> = {
  text: ['TQ 1180', 'TQ 1204', 'TQ 1217', '36', '41'],
  longText: ['Sound. Brake lining at 7 mm, to be watched. Limit switch adjusted.', 'No damage but for two fenders.'],
};

/** One in so many readings lies outside its limits. */
const OUTSIDE = 0.03;

/**
 * What somebody may have answered. Readings stay near each other within a series, as those of one thing do.
 * @param level of the series, from 0 to 1
 */
export function madeUpAnswer(
  demand: Demand,
  random: SeededRandom,
  level: number,
  day: number,
  tag: string,
): Answer | null {
  switch (demand.kind) {
    case 'file':
    case 'note':
      return null;
    case 'number': {
      const [from, to] = typicalRange(demand);
      const isOut = random.chance(OUTSIDE) && demand.unit in REMARKS;
      const within = from + (to - from) * Math.min(1, Math.max(0, level + (random.next() - 0.5) * 0.3));
      const over = demand.most ?? (demand.least ?? 0) - 3;
      const value = isOut ? over + (demand.most === null ? 0 : Math.max(1, Math.abs(over)) * 0.4) : within;
      const remark = isOut ? random.pick(REMARKS[demand.unit] ?? ['']) : '';
      const step = demand.unit === 'Ω' || demand.unit === '%' ? 100 : demand.unit === 'mbar' ? 10 : 1;
      return { value: Math.round(value * step) / step, remark };
    }
    case 'choice':
      return { value: random.pick(demand.options), remark: '' };
    case 'choices': {
      const [first = ''] = demand.options;
      return { value: random.chance(0.7) ? [first] : [random.pick(demand.options.slice(1))], remark: '' };
    }
    case 'yesNo':
      return { value: true, remark: '' };
    case 'date':
      return { value: isoOfDay(day + 200 + Math.floor(random.next() * 200)), remark: '' };
    case 'tag':
      return { value: tag, remark: '' };
    case 'text':
    case 'longText':
      return { value: random.pick(WORDS[demand.kind] ?? ['']), remark: '' };
  }
}

function typicalRange({ least, most, unit }: Extract<Demand, { kind: 'number' }>): [number, number] {
  if (unit === 'Ω') return [0.2, 0.7];
  if (unit === 'h') return [600, 2400];
  if (least === null) return [20, most ?? 60];
  return most === null ? [least, least + 4] : [least, least + (most - least) * 0.6];
}
