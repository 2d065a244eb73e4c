/** Ways of spelling English. */
export const SPELLINGS = ['British', 'American'] as const;
export type Spelling = (typeof SPELLINGS)[number];

/** Words spelt in two ways, British and American, as whole words with what may follow them. */
const WORDS: readonly (readonly [string, string])[] = [
  ['mould', 'mold'],
  ['colour', 'color'],
  ['flavour', 'flavor'],
  ['favourite', 'favorite'],
  ['odour', 'odor'],
  ['vapour', 'vapor'],
  ['neighbour', 'neighbor'],
  ['labour', 'labor'],
  ['litre', 'liter'],
  ['metre', 'meter'],
  ['fibre', 'fiber'],
  ['grey', 'gray'],
  ['yoghurt', 'yogurt'],
  ['chilli', 'chili'],
  ['catalogue', 'catalog'],
  ['jewellery', 'jewelry'],
  ['aluminium', 'aluminum'],
  ['plough', 'plow'],
  ['moisturis', 'moisturiz'],
  ['sterilis', 'steriliz'],
  ['pasteuris', 'pasteuriz'],
  ['sanitis', 'sanitiz'],
  ['organis', 'organiz'],
  ['winteris', 'winteriz'],
  ['caramelis', 'carameliz'],
  ['neutralis', 'neutraliz'],
  ['crystallis', 'crystalliz'],
  ['minimis', 'minimiz'],
  ['oxidis', 'oxidiz'],
  ['iodis', 'iodiz'],
];
const ENDINGS = '(?:s|y|ed|er|ing|ings|es|e|ation|ful|less)?';

const ways: Record<Spelling, { pattern: RegExp; to: ReadonlyMap<string, string> }> = {
  British: way(WORDS.map(([british, american]) => [american, british])),
  American: way(WORDS),
};

function way(pairs: readonly (readonly [string, string])[]) {
  return {
    pattern: new RegExp(`\\b(${pairs.map(([from]) => from).join('|')})(?=${ENDINGS}\\b)`, 'gi'),
    to: new Map(pairs),
  };
}

/** What stands before a length. */
const COUNTED = /(?:\d|\b(?:square|cubic|half|two|three|four|five|six|seven|eight|nine|ten|hundred|thousand))[\s-]?$/i;

/** A phrase with its words spelt one way; a capital at the beginning of a word stays. */
export function spelt(phrase: string, spelling: Spelling): string {
  const { pattern, to } = ways[spelling];
  return phrase.replace(pattern, (word: string, _: string, at: number) => {
    // What measures is a meter in both; only the length is a metre.
    if (word.toLowerCase() === 'meter' && !COUNTED.test(phrase.slice(Math.max(0, at - 12), at))) return word;
    const other = to.get(word.toLowerCase())!;
    return word[0] === word[0]!.toLowerCase() ? other : other[0]!.toUpperCase() + other.slice(1);
  });
}
