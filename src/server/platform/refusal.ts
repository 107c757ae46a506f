import { PROBLEMS, type Problem, type ProblemKind } from '../../contract/index.ts';

interface Beside {
  readonly errors?: Problem['errors'] | undefined;
  /** Sent along with the answer. */
  readonly headers?: Readonly<Record<string, string>>;
}

/** A request that is refused in words. Becomes problem details (RFC 9457). */
export class Refusal extends Error {
  override readonly name = 'Refusal';
  readonly errors: Problem['errors'];
  readonly headers: Readonly<Record<string, string>>;
  constructor(
    readonly kind: ProblemKind,
    readonly detail: string,
    { errors, headers = {} }: Beside = {},
  ) {
    super(detail);
    this.errors = errors;
    this.headers = headers;
  }
  get status(): number {
    return PROBLEMS[this.kind][0];
  }
}

export const notFound = (what: string) =>
  new Refusal('not-found', `There is no such ${what} here. It may have been removed, or the address is wrong.`);

export const forbidden = (detail: string) => new Refusal('not-allowed', detail);

/** Somebody else has changed it since it was seen. */
export const changedMeanwhile = (detail: string, errors?: Problem['errors']) =>
  new Refusal('changed-meanwhile', detail, { errors });

/** It can't be done with the thing as it stands now. */
export const notNow = (detail: string) => new Refusal('not-now', detail);

/** Faults told of one body: whoever sends more of them reads no more of them. */
const MOST_FAULTS = 100;
export const invalid = (errors: NonNullable<Problem['errors']>) =>
  new Refusal('invalid', errors[0]?.message ?? 'Something is missing or wrong.', {
    errors: errors.slice(0, MOST_FAULTS),
  });
