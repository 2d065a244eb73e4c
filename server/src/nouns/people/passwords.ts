/** Guesses it takes at least, as a power: three stands for a hundred million (zxcvbn, Wheeler 2016). */
const LEAST_SCORE = 3;
/** Longer ones are weighed by their beginning: the time it takes grows with their length. */
const MOST_WEIGHED = 100;

const LEAST_REST = 6;

type Weigh = (password: string, own: string[]) => number;
let weigh: Promise<Weigh> | null = null;

/** The dictionaries are read when the first password is set. */
async function weighing(): Promise<Weigh> {
  const [{ zxcvbn, zxcvbnOptions }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ]);
  zxcvbnOptions.setOptions({ dictionary, graphs: adjacencyGraphs });
  return (password, own) => zxcvbn(password.slice(0, MOST_WEIGHED), own).score;
}

/**
 * Why a password is refused: it is among the common ones, plainly made, or made of the person's own name and address.
 * @returns null when it is good enough
 */
export async function weakPassword(password: string, person: { name: string; email: string }): Promise<string | null> {
  weigh ??= weighing();
  const own = [person.email, person.name, ...`${person.name} ${person.email}`.split(/[^\p{L}\p{N}]+/u)].filter(
    (part) => part.length > 2,
  );
  // What is left beside name and address has to be something by itself.
  const rest = own
    .map((part) => part.toLowerCase())
    .sort((a, b) => b.length - a.length)
    .reduce((left, part) => left.replaceAll(part, ''), password.toLowerCase())
    .replace(/[^\p{L}\p{N}]/gu, '');
  return rest.length >= LEAST_REST && (await weigh)(password, own) >= LEAST_SCORE
    ? null
    : 'it is among the first that would be guessed; take four words that have nothing to do with each other';
}
