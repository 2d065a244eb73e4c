import type { Clause } from './clause.ts';
import { EMPTY, setOf } from './lexicon.ts';
import type { Token } from './token.ts';

const SAYING = setOf(
  'says said writes wrote explains explained tells told puts adds added warns warned believes thinks reports reported advises advised recommends recommended recalls remembers claims claimed admits according sagt sagte schreibt schrieb erklärt erklärte meint meinte laut warnt warnte berichtet berichtete rät glaubt erzählt erzählte zufolge findet',
);

const KIN = setOf(
  'sister brother son daughter wife husband father mother cousin niece nephew uncle aunt grandson granddaughter twins twin schwester bruder sohn tochter frau mann vater mutter nichte neffe onkel tante enkel enkelin',
);
const WHO = setOf('she he they');

const isName = (token: Token | undefined, language: string): token is Token =>
  token !== undefined &&
  token.kind === 'word' &&
  token.capital &&
  token.text.length > 1 &&
  !(EMPTY[language] ?? EMPTY['en']!).has(token.lower);

/** Names right beside a word for saying. */
function speakersOf({ tokens, language }: Clause): string[][] {
  return tokens.flatMap(({ lower }, at) => {
    if (!SAYING.has(lower)) return [];
    const to = lower === 'according' ? at + 2 : at + 1;
    const [before, behind] = [tokens[at - 1], tokens[to]];
    const name = isName(behind, language) ? behind : isName(before, language) ? before : undefined;
    if (name === undefined) return [];
    const first = tokens[tokens.indexOf(name) - 1];
    return [[name, ...(isName(first, language) ? [first] : [])].map(({ stem }) => stem)];
  });
}

const PLACING = setOf('in at from near of to on by through around');

/** Stems of words that do not stand behind a word for a place. */
const peopleOf = ({ tokens }: Clause): string[] =>
  tokens.flatMap(({ stem }, at) => (PLACING.has(tokens[at - 1]?.lower ?? '') ? [] : [stem]));

/**
 * '…, says Oakby' of what somebody else says: whoever speaks is named in the sources, and in no sentence that tells what
 * is said, nor in the one before it.
 */
export function otherSpeaker(said: Clause, sources: readonly Clause[]): boolean {
  if (said.language === 'de') return false;
  const mine = speakersOf(said).filter(([stem]) =>
    sources.some(({ tokens }) => tokens.some((token) => token.capital && token.stem === stem)),
  );
  if (mine.length === 0) return false;
  const telling = sources.filter(
    ({ sentence }) => sentence.clauses.some((held) => held.has(SAYING)) || /[“"„»]/.test(sentence.text),
  );
  // 'She says': whoever she is stands in the sentence before.
  const isTold = (held: Clause, { sentence }: Clause) =>
    held.sentence === sentence || (held.sentence.n === sentence.n - 1 && sentence.clauses.some((one) => one.has(WHO)));
  const names = new Set(
    telling.flatMap((one) => one.sentence.of.clauses.filter((held) => isTold(held, one)).flatMap(peopleOf)),
  );
  // 'She says' may be of anybody with two names.
  if (telling.some(({ sentence }) => sentence.clauses.some((held) => held.has(WHO))))
    for (const { second } of sources.flatMap(pairsOf)) names.add(second.stem);
  return telling.length > 0 && mine.every((stems) => !stems.some((stem) => names.has(stem)));
}

/** Names of which one stands right behind the other. */
const pairsOf = (clause: Clause): readonly { first: Token; second: Token }[] =>
  clause.once('pairs of names', () =>
    clause.tokens.flatMap((first, at) => {
      const second = clause.tokens[at + 1];
      return isName(first, clause.language) &&
        isName(second, clause.language) &&
        second.start === first.end + 1 &&
        !first.unit
        ? [{ first, second }]
        : [];
    }),
  );

/** 'Ines Corvenna' of Ines Thorne: both are named, and never together, and the first with another behind it. */
export function otherSurname(said: Clause, sources: readonly Clause[]): boolean {
  return pairsOf(said).some(({ first, second }) => {
    const held = sources.flatMap(pairsOf);
    const its = held.filter((pair) => pair.first.stem === first.stem);
    if (held.some((pair) => pair.first.stem === first.stem && pair.second.stem === second.stem)) return false;
    // 'Keld Ostrov' of Pavel Ostrov, under whom a mountain called Keld was built upon.
    if (its.length === 0)
      return (
        sources.some(({ tokens }) => tokens.some(({ capital, stem }) => capital && stem === first.stem)) &&
        !sources.some(({ tokens }) =>
          tokens.some(({ stem }, at) => stem === first.stem && KIN.has(tokens[at - 1]?.lower ?? '')),
        ) &&
        held.some((pair) => pair.second.stem === second.stem) &&
        !held.some(
          (pair) =>
            pair.second.stem === second.stem &&
            held.some((next) => next.second.stem === pair.first.stem && next.first.stem === first.stem),
        )
      );
    // 'Dr Farouk' is Dr Amina Farouk.
    const middle = its.some((pair) =>
      held.some(
        (next) =>
          next.first.start >= pair.second.start &&
          next.first.stem === pair.second.stem &&
          next.second.stem === second.stem,
      ),
    );
    const known = sources.some(({ tokens }) => tokens.some((token) => token.capital && token.stem === second.stem));
    return known && !middle;
  });
}
