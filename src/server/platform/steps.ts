/** The channel in PostgreSQL of how far long work is. */
export const STEPS_CHANNEL = 'jolly_steps';
/** Not told more often than it is looked at. */
const TELL_EVERY_MS = 200;

/** How far long work is, for the page that waits for it: told beside its transaction, of which nothing is seen before it ends. */
export class Steps {
  private done = 0;
  private toldAt = performance.now();

  constructor(
    private readonly tell: (done: number) => Promise<unknown>,
    /** How much there is to do, all steps together. */
    private readonly of: number,
  ) {}

  async did(count: number): Promise<void> {
    this.done = Math.min(this.of, this.done + count);
    if (performance.now() - this.toldAt < TELL_EVERY_MS) return;
    this.toldAt = performance.now();
    await this.tell(this.done);
  }

  /** Where it has to be done once more. */
  beginAgain(): void {
    this.done = 0;
  }
}
