/** One step run in a worker's hands. A run taken twice, as after a lost lease, has two grips, and only the newer counts. */
export class Grip {
  private abort: AbortController | null = null;
  private gone = false;

  constructor(
    readonly run: string,
    readonly brief: string,
    /** Whose permit the run uses. */
    readonly service: string | null,
  ) {}

  get givenUp(): boolean {
    return this.gone;
  }

  /** Aborted when the run is given up. Made when first asked for: most steps never do, and making one took a tenth of a step's time. */
  get signal(): AbortSignal {
    if (this.gone) return AbortSignal.abort();
    this.abort ??= new AbortController();
    return this.abort.signal;
  }

  giveUp(): void {
    this.gone = true;
    this.abort?.abort();
  }
}

/** The step runs a worker has in hand. */
export class Hand {
  private readonly grips = new Map<string, Grip>();

  constructor(private readonly capacity: number) {}

  get size(): number {
    return this.grips.size;
  }

  get room(): number {
    return this.capacity - this.grips.size;
  }

  has(run: string): boolean {
    return this.grips.has(run);
  }

  take(run: string, brief: string, service: string | null): Grip {
    const grip = new Grip(run, brief, service);
    this.grips.set(run, grip);
    return grip;
  }

  /** @returns whether the run was still in hand by this grip */
  drop(grip: Grip): boolean {
    return this.grips.get(grip.run) === grip && this.grips.delete(grip.run);
  }

  /** Gives up everything in hand; each run is dropped when its work has noticed. */
  giveUp(): void {
    for (const grip of this.grips.values()) grip.giveUp();
  }

  clear(): void {
    this.giveUp();
    this.grips.clear();
  }

  briefs(): Set<string> {
    return new Set([...this.grips.values()].map((grip) => grip.brief));
  }
}
