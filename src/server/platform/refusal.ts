import type { Problem } from '../../contract/index.ts';

/** A request that is refused in words. Becomes problem details (RFC 9457). */
export class Refusal extends Error {
  override readonly name = 'Refusal';
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors?: Problem['errors'],
    /** Sent along with the answer. */
    readonly headers: Readonly<Record<string, string>> = {},
  ) {
    super(detail);
  }
}

export const notFound = (what: string) =>
  new Refusal(404, 'Not found', `There is no such ${what} here. It may have been removed, or the address is wrong.`);

export const forbidden = (detail: string) => new Refusal(403, 'Not allowed', detail);

export const conflict = (detail: string, errors?: Problem['errors']) =>
  new Refusal(409, 'Changed meanwhile', detail, errors);

/** Faults told of one body: whoever sends more of them reads no more of them. */
const MOST_FAULTS = 100;
export const invalid = (errors: NonNullable<Problem['errors']>) =>
  new Refusal(422, 'Not saved', errors[0]?.message ?? 'Something is missing or wrong.', errors.slice(0, MOST_FAULTS));
