const NOBODY = -1;

/** Who is most over capacity, but for two. */
export class WorstOver {
  private readonly worst: number[] = [];
  /** Whoever is most over, for a quick look; nobody's place where nobody is. */
  top = NOBODY;
  /** Who is over by how much, to tell whether that has changed. */
  private said = '';

  constructor(
    private readonly capacity: Float64Array,
    private readonly loads: Float64Array,
  ) {
    this.update();
  }

  /** After a change of loads: the three that are most over. Gives whether that makes a difference to others than them. */
  update(): boolean {
    const before = this.said;
    this.worst.length = 0;
    for (let who = 0; who < this.loads.length; who++) {
      const at = this.worst.findIndex((other) => this.overOf(who) > this.overOf(other));
      if (at === -1 && this.worst.length < 3) this.worst.push(who);
      else if (at !== -1) {
        this.worst.splice(at, 0, who);
        this.worst.length = Math.min(3, this.worst.length);
      }
    }
    this.top = this.most ?? NOBODY;
    this.said = this.worst.map((who) => (this.isOver(who) ? `${who} ${this.overOf(who)}` : '')).join();
    return this.said !== before;
  }

  isSame(other: WorstOver): boolean {
    return this.said === other.said;
  }

  /** Whoever is most over; null where nobody is. */
  get most(): number | null {
    const who = this.worst[0];
    return who === undefined || this.overOf(who) <= 0 ? null : who;
  }

  but(a: number, b: number): number {
    for (const who of this.worst) if (who !== a && who !== b) return Math.max(0, this.overOf(who));
    return 0;
  }

  isOver(who: number): boolean {
    return this.overOf(who) > 0;
  }

  private overOf(who: number): number {
    return (this.loads[who] as number) - (this.capacity[who] as number);
  }
}
