/** Within how many milliseconds something is asked for after the news: browsers that hear it at once don't ask at once. */
const SOON_MS = [20, 250] as const;
const LATER_MS = [100, 900] as const;
/** What many may look at is asked for no more often than this, however much news there is. */
const GAP_MS = 3000;

/** Asks for what has changed, once for however many news of it come meanwhile, and not in step with other browsers. */
export class Unhurried {
  private readonly waiting = new Map<string, ReturnType<typeof setTimeout>>();
  private readonly asked = new Map<string, number>();

  constructor(
    private readonly ask: (address: string) => void,
    private readonly random: () => number = Math.random,
  ) {}

  soon(address: string): void {
    this.in(address, this.between(SOON_MS));
  }

  later(address: string): void {
    const since = Date.now() - (this.asked.get(address) ?? Number.NEGATIVE_INFINITY);
    this.in(address, this.between(LATER_MS) + Math.max(0, GAP_MS - since));
  }

  stop(): void {
    for (const timer of this.waiting.values()) clearTimeout(timer);
    this.waiting.clear();
  }

  private in(address: string, milliseconds: number): void {
    // What waits already asks after this news too.
    if (this.waiting.has(address)) return;
    this.waiting.set(
      address,
      setTimeout(() => {
        this.waiting.delete(address);
        this.asked.set(address, Date.now());
        this.ask(address);
      }, milliseconds),
    );
  }

  private between([least, most]: readonly [number, number]): number {
    return least + this.random() * (most - least);
  }
}
