import { setOf, VERBS } from './lexicon.ts';
import { isNumberWord } from './numbers.ts';
import type { Token } from './token.ts';

/** What parts a sentence where something is said on either side. */
const JOINS = setOf('; : — – ,');
/** Words behind which something else is always said. */
const REASONS = setOf('because whereas although weil obwohl');
/** What stands for all that was named and denies it: '… in May and none in July', '… with it, without it 2'. */
const NONE = setOf('none neither keine keiner keines');
export const LACKING = setOf('without ohne');
const saysNone = (tokens: readonly Token[], at: number): boolean =>
  tokens.slice(at + 1, at + 5).some(({ lower }) => NONE.has(lower)) || endsDenied(tokens, at);

export const isDenial = (token: Token | undefined): boolean => token?.lower === 'not' || token?.lower === 'nicht';

/** '…, motorbikes are not.', '…, Motorräder nicht.' */
function endsDenied(tokens: readonly Token[], at: number): boolean {
  const last = tokens.findLastIndex(({ kind }) => kind !== 'sign');
  return (
    tokens[at]!.text === ',' &&
    last - at <= 4 &&
    last > at + 1 &&
    isDenial(tokens[last]) &&
    tokens.slice(at + 1, last).some(({ content }) => content)
  );
}
const JOINING: Record<string, ReadonlySet<string>> = {
  en: setOf('and but while whereas although because so'),
  de: setOf('und aber während doch sondern weil obwohl'),
};

/** Whether a verb of its own stands behind a place. */
const hasVerb = (tokens: readonly Token[], from: number, language: string): boolean => {
  const verbs = VERBS[language] ?? VERBS['en']!;
  // 'But wool does' leaves its verb out.
  return tokens.slice(from).some(({ lower }, at, all) => verbs.has(lower) && all[at + 1]?.kind === 'word');
};

/** Cut where it goes on about something else: behind a semicolon, and where a word joins what has words on both sides. */
export function parted(tokens: readonly Token[], language: string): { part: Token[]; after: string }[] {
  const joining = JOINING[language] ?? JOINING['en']!;
  const weighs = ({ kind, content }: Token) => kind === 'number' || content;
  let left = tokens.reduce((sum, token) => sum + (weighs(token) ? 1 : 0), 0);
  let said = 0;
  const out: { part: Token[]; after: string }[] = [];
  let open: Token[] = [];
  let after = '';
  for (const [i, token] of tokens.entries()) {
    const cuts = JOINS.has(token.text) || endsHere(tokens, i) || (token.kind === 'word' && joining.has(token.lower));
    const next = tokens[i + 1]?.lower ?? '';
    const least = REASONS.has(token.lower) || saysNone(tokens, i) || (token.text === ',' && LACKING.has(next)) ? 1 : 2;
    const goesOn = left >= least || (left >= 1 && token.text === ',' && hasVerb(tokens, i + 2, language));
    if (cuts && said >= least && goesOn && !inNumber(tokens, i, language)) {
      out.push({ part: open, after });
      open = [];
      said = 0;
      after = token.lower;
      continue;
    }
    open.push(token);
    if (!weighs(token)) continue;
    said++;
    left--;
  }
  return open.length > 0 ? [...out, { part: open, after }] : out;
}

/** A full stop before a figure: '… every November. 22 people …' is read as one sentence, since '… approx. 22' is. */
const endsHere = (tokens: readonly Token[], at: number): boolean =>
  tokens[at]!.text === '.' &&
  tokens[at - 1]?.kind === 'word' &&
  tokens[at - 1]!.text.length > 4 &&
  tokens[at + 1]?.kind === 'number';

const BETWEEN = setOf('between zwischen');

/** 'a hundred and forty', 'two and a half', 'between 7 and 10', '3 May, 2021'. */
function inNumber(tokens: readonly Token[], at: number, language: string): boolean {
  const [before, after] = [tokens[at - 1], tokens[at + 1]];
  return (
    // 'Between May and September'.
    (after?.capital === true && BETWEEN.has(tokens[at - 2]?.lower ?? '') && before?.capital === true) ||
    (before?.kind === 'number' && after?.kind === 'number') ||
    // '8 hours and 40 minutes'.
    (before?.unit === true &&
      after !== undefined &&
      (after.kind === 'number' || isNumberWord(after.lower, language)) &&
      tokens[at + 2]?.unit === true &&
      tokens[at]!.kind === 'word') ||
    /^(?:hundred|thousand|one|two|three|four|five)$/.test(before?.lower ?? '') ||
    (after?.lower === 'a' && tokens[at + 2]?.lower === 'half')
  );
}
