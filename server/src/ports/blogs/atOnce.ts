/** Calls made to a blog at the same time where nothing else is said: many blogs run on small machines. */
export const CALLS_AT_ONCE = 4;

/** Lets a few do something with the same thing at a time; the others wait, in the order they came. */
export class AtOnce {
  private readonly doing = new Map<string, { now: number; waiting: (() => void)[] }>();

  /**
   * @param most how many may at a time
   * @param first whether it goes before all that wait: somebody looks on
   */
  async do<T>(what: string, most: number, act: () => Promise<T>, first = false): Promise<T> {
    let at = this.doing.get(what);
    if (!at) {
      at = { now: 0, waiting: [] };
      this.doing.set(what, at);
    }
    const { waiting } = at;
    if (at.now >= most) await new Promise<void>((go) => (first ? waiting.unshift(go) : waiting.push(go)));
    else at.now++;
    try {
      return await act();
    } finally {
      // Whoever waits longest has this place now.
      const next = waiting.shift();
      if (next) next();
      else if (--at.now === 0) this.doing.delete(what);
    }
  }
}
