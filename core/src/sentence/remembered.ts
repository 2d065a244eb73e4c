/** Most words that are remembered: a text has the same ones again and again. */
const MOST_KNOWN = 20_000;

/** What is made of a word in a language, made once for each, as long as not more than so many others were. */
export function remembered<T>(
  make: (word: string, language: string) => T,
  most = MOST_KNOWN,
): (word: string, language: string) => T {
  const known: Record<string, Map<string, T>> = {};
  return (word, language) => {
    known[language] ??= new Map();
    const own = known[language];
    let found = own.get(word);
    if (found === undefined) {
      if (own.size >= most) own.clear();
      found = make(word, language);
      own.set(word, found);
    }
    return found;
  };
}

/** What is made of a thing, made once for each and kept as long as the thing is there. */
export function onceEach<K extends object, T>(make: (of: K) => T): (of: K) => T {
  const known = new WeakMap<K, { made: T }>();
  return (of) => {
    const before = known.get(of);
    if (before) return before.made;
    const made = make(of);
    known.set(of, { made });
    return made;
  };
}
