/** A phrase made of another one. */
export interface Widened {
  phrase: string;
  /** Asked as a reader would ask it. */
  question: boolean;
}

/** What people put to a thing they want to know of, make, choose or keep; X stands for it. */
const PATTERNS: Record<string, { questions: string; phrases: string }> = {
  en: {
    questions:
      'what is X|how to make X|how long does X take|how long does X keep|how do you store X|can you freeze X|is X safe|is X good for you|why did my X go wrong|how much X a day|which X is best|what can I use instead of X',
    phrases:
      'X recipe|easy X|homemade X|X for beginners|X step by step|X at home|best X|X without salt|X mistakes|X temperature|X time|X shelf life|X benefits|X substitute|X ratio|X price',
  },
  de: {
    questions:
      'was ist X|wie macht man X|wie lange dauert X|wie lange ist X haltbar|wie lagert man X|kann man X einfrieren|ist X gesund|warum misslingt X|welches X ist das beste|was statt X',
    phrases:
      'X Rezept|X einfach|X selber machen|X für Anfänger|X Schritt für Schritt|bestes X|X ohne Salz|X Fehler|X Temperatur|X Dauer|X Haltbarkeit|X Ersatz|X Verhältnis|X Preis',
  },
};

/** Ways of asking a seed may bring along, which are left before patterns are put to it. */
const ASKING: Record<string, RegExp> = {
  en: /^(?:how (?:to|do you|do i) (?:make |ferment |store )?|what (?:is|are) (?:an? )?|best |easy |why (?:is|are) (?:my )?)|(?: recipes?| at home| for beginners)$/gi,
  de: /^(?:wie macht man |was ist |beste[rs]? )|(?: rezepte?| selber machen| für anfänger)$/gi,
};

/**
 * Phrases and questions around a phrase, by patterns alone: nothing is known of how often they are searched for. The seed
 * itself is not among them.
 */
export function widened(seed: string, language = 'en'): Widened[] {
  const thing = seed
    .trim()
    .replace(/\s+/g, ' ')
    .replace(/\?+$/, '')
    .replace(ASKING[language] ?? ASKING['en']!, '')
    .trim();
  if (thing === '') return [];
  const { questions, phrases } = PATTERNS[language] ?? PATTERNS['en']!;
  const made = (patterns: string, question: boolean) =>
    patterns.split('|').map((pattern) => ({ phrase: pattern.replace('X', () => thing), question }));
  return [...made(questions, true), ...made(phrases, false)].filter(
    ({ phrase }) => phrase.toLowerCase() !== seed.trim().toLowerCase(),
  );
}

const QUESTION: Record<string, RegExp> = {
  en: /^(?:how|what|why|when|where|which|who|can|do|does|did|is|are|should|will)\b|\?$/i,
  de: /^(?:wie|was|warum|wieso|wann|wo|welche[rsnm]?|wer|kann|darf|ist|sind|muss|soll)\b|\?$/i,
};

/** Whether a phrase is put as a question. */
export function asksQuestion(phrase: string, language = 'en'): boolean {
  return (QUESTION[language] ?? QUESTION['en']!).test(phrase.trim());
}
