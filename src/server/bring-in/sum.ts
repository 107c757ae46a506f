/** What became of what a file brought in, once it is taken out again. */
export interface Sum {
  out: number;
  back: number;
  readonly stay: Set<string>;
  /** What an earlier line had changed too is put back once more, though it is in another version by then. */
  readonly restored: Set<string>;
}
