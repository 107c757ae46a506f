import { dayOfIso, type OwnField } from '../../../core/index.ts';
import { sayDate } from '../../kit/ways.ts';

/** A value of an own field as it is read. */
export function sayFieldValue({ kind }: OwnField, value: string | number): string {
  if (kind === 'date' && /^\d{4}-\d{2}-\d{2}$/.test(String(value))) return sayDate(dayOfIso(String(value)));
  return typeof value === 'number' ? value.toLocaleString('en-GB', { maximumFractionDigits: 6 }) : value;
}
