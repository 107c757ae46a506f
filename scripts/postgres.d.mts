/** Types of postgres.mjs, for those who import it from TypeScript. */
export interface OwnPostgres {
  readonly url: string;
  readonly folder: string;
  stop(): Promise<void>;
}
export function startPostgres(options: {
  readonly folder: string;
  readonly fast?: boolean;
  readonly port?: number | null;
  readonly say?: (line: string) => void;
}): Promise<OwnPostgres>;
export function freePort(): Promise<number>;
