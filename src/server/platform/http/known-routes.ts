import type { Right } from '../../../core/index.ts';

/** What is known of a route besides what it takes and answers: who may use it, and in which form it answers. */
export interface KnownRoute {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** Below `/api`, with `:name` for what stands in it. */
  readonly path: string;
  /** "anyone" for what nobody has to be signed in for; "link" for what is opened by what whoever asks shows. */
  readonly needs: Right | 'anyone' | 'link';
  readonly form: 'json' | 'bytes' | 'upload';
}
