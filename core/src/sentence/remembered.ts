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
