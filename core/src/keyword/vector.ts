/** What a phrase is weighed by: features and their weights, of length one together; nothing known is empty. */
export type Vector = ReadonlyMap<string, number>;

/** The same of length one. */
export function evened(vector: ReadonlyMap<string, number>): Vector {
  const length = Math.hypot(...vector.values());
  return length === 0 ? vector : new Map([...vector].map(([feature, weight]) => [feature, weight / length]));
}

/** A feature of so many alone makes no two alike; it counts where another does. */
const COMMON = 1_000;

/** Vectors as figures, with an index of who before a place in the list holds a feature. */
class Index {
  private readonly features: Int32Array[];
  private readonly weights: Float32Array[];
  private readonly holders: { at: Int32Array; weight: Float32Array; held: number }[] = [];
  /** How much each before the one looked at shares with it. */
  readonly shared: Float32Array;

  constructor(vectors: readonly Vector[]) {
    const counts = new Map<string, number>();
    for (const vector of vectors)
      for (const feature of vector.keys()) counts.set(feature, (counts.get(feature) ?? 0) + 1);
    const numbers = new Map<string, number>();
    // The rarest first, so that what is common meets only those that share something rarer already.
    for (const [feature, n] of [...counts].sort((a, b) => a[1] - b[1]))
      if (n > 1) {
        numbers.set(feature, this.holders.length);
        this.holders.push({ at: new Int32Array(n), weight: new Float32Array(n), held: 0 });
      }
    const known = vectors.map((vector) =>
      [...vector]
        .flatMap(([feature, weight]) => (numbers.has(feature) ? [{ number: numbers.get(feature)!, weight }] : []))
        .sort((a, b) => a.number - b.number),
    );
    this.features = known.map((all) => Int32Array.from(all, ({ number }) => number));
    this.weights = known.map((all) => Float32Array.from(all, ({ weight }) => weight));
    this.shared = new Float32Array(vectors.length);
  }

  /** Adds up what each before `i` shares with it, and enters it. Writes those that share anything to `met` from `n` on, unless `there` has them; gives how many are met. */
  add(i: number, met: Int32Array, n: number, there: Float32Array | null): number {
    const [features, weights, shared] = [this.features[i]!, this.weights[i]!, this.shared];
    let many = n;
    for (let f = 0; f < features.length; f++) {
      const holders = this.holders[features[f]!]!;
      const { at, weight, held } = holders;
      const own = weights[f]!;
      const opens = at.length <= COMMON;
      for (let k = 0; k < held; k++) {
        const j = at[k]!;
        const before = shared[j]!;
        if (before === 0) {
          if (!opens) continue;
          if (there === null || there[j] === 0) met[many++] = j;
        }
        shared[j] = before + own * weight[k]!;
      }
      at[held] = i;
      weight[held] = own;
      holders.held++;
    }
    return many;
  }
}

/** Less alike than this is chance. */
const LEAST = 0.12;
/** Pairs kept of each, the most alike; a group is seldom larger. */
const MOST_EACH = 24;

/** Of each of a list the ones most like it. */
export class Neighbours {
  readonly other: Int32Array;
  readonly alike: Float32Array;
  readonly many: Int32Array;
  private readonly least: Int32Array;

  constructor(readonly length: number) {
    this.other = new Int32Array(length * MOST_EACH);
    this.alike = new Float32Array(length * MOST_EACH);
    this.many = new Int32Array(length);
    this.least = new Int32Array(length);
  }

  /** Keeps the other of `one` if it is among the most alike. */
  keep(one: number, other: number, alike: number): void {
    const from = one * MOST_EACH;
    const many = this.many[one]!;
    const at = many < MOST_EACH ? from + many : this.least[one]!;
    if (many < MOST_EACH) this.many[one] = many + 1;
    else if (alike <= this.alike[at]!) return;
    this.other[at] = other;
    this.alike[at] = alike;
    if (many + 1 < MOST_EACH) return;
    let least = from;
    for (let k = from + 1; k < from + MOST_EACH; k++) if (this.alike[k]! < this.alike[least]!) least = k;
    this.least[one] = least;
  }

  /** Every pair that either of its two keeps, once or twice. */
  each(use: (one: number, other: number, alike: number) => void): void {
    for (let one = 0; one < this.length; one++)
      for (let k = one * MOST_EACH; k < one * MOST_EACH + this.many[one]!; k++)
        use(one, this.other[k]!, this.alike[k]!);
  }
}

/**
 * Who of a list is alike: by words, and with the given share by results where both have some. Takes a time linear in the
 * pairs that share a feature.
 */
export function likeness(words: readonly Vector[], results: readonly Vector[], byResults: number): Neighbours {
  const [byWord, byResult] = [new Index(words), new Index(results)];
  const out = new Neighbours(words.length);
  const met = new Int32Array(words.length);
  for (let i = 0; i < words.length; i++) {
    const n = byResult.add(i, met, byWord.add(i, met, 0, null), byWord.shared);
    const known = results[i]!.size > 0;
    for (let k = 0; k < n; k++) {
      const j = met[k]!;
      const word = byWord.shared[j]!;
      const alike = known && results[j]!.size > 0 ? (1 - byResults) * word + byResults * byResult.shared[j]! : word;
      byWord.shared[j] = 0;
      byResult.shared[j] = 0;
      if (alike < LEAST) continue;
      out.keep(i, j, alike);
      out.keep(j, i, alike);
    }
  }
  return out;
}
