/**
 * What several ask for at the same moment is worked out once: everybody who has a page open reads it again at the same
 * change. Nobody is given what was begun before a change they may know of.
 */
export class Together {
  private changes = 0;
  private readonly begun = new Map<string, { changes: number; answer: Promise<string> }>();

  /** Something is not as it was: what is being worked out from before is given to nobody else. */
  changed(): void {
    this.changes++;
  }

  /**
   * @param key what is asked for
   * @param work works it out
   * @returns the answer as JSON
   */
  answer(key: string, work: () => Promise<unknown>): Promise<string> {
    const begun = this.begun.get(key);
    if (begun?.changes === this.changes) return begun.answer;
    const answer = work().then((value) => JSON.stringify(value));
    const mine = { changes: this.changes, answer };
    this.begun.set(key, mine);
    const end = () => {
      if (this.begun.get(key) === mine) this.begun.delete(key);
    };
    answer.then(end, end);
    return answer;
  }
}
