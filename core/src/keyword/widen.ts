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
      'what is X|how does X work|how long does X take|how much does X cost|how do you choose X|is X worth it|what can go wrong with X|which X is best|what can I use instead of X|when do you need X',
    phrases:
      'X for beginners|X step by step|X at home|best X|easy X|X tips|X mistakes|X problems|X ideas|X examples|X benefits|X alternatives|X cost|X near me',
  },
  de: {
    questions:
      'was ist X|wie funktioniert X|wie lange dauert X|was kostet X|worauf achten bei X|lohnt sich X|was kann bei X schiefgehen|wann braucht man X|was statt X',
    phrases:
      'X für Anfänger|X Schritt für Schritt|X zu Hause|X selber machen|X einfach|X Tipps|X Fehler|X Probleme|X Ideen|X Beispiele|X Vorteile|X Alternativen|X Kosten',
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
    .replace(/(?<!\?)\?+$/, '')
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
