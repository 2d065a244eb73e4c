import { onceEach } from '../sentence/remembered.ts';
import type { Clause, Sentence } from './clause.ts';
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

/** Names of which one stands right behind the other. */
const pairsOf = (clause: Clause): readonly { first: string; second: string }[] =>
  clause.once('pairs of names', () =>
    clause.tokens.flatMap((first, at) => {
      const second = clause.tokens[at + 1];
      const isPair = isName(first, clause.language) && isName(second, clause.language) && !first.unit;
      return isPair && second.start === first.end + 1 ? [{ first: first.stem, second: second.stem }] : [];
    }),
  );

/** What sources name, made once for all that is held against them. */
interface Named {
  /** Whatever is written with a capital. */
  capitals: ReadonlySet<string>;
  /** Who is called somebody's sister or son. */
  kin: ReadonlySet<string>;
  /** What stands behind each first name, and all that stands behind one. */
  behind: ReadonlyMap<string, ReadonlySet<string>>;
  seconds: ReadonlySet<string>;
  /** Who may be the one that speaks, where anything is said by somebody; null where nothing is. */
  speaking: ReadonlySet<string> | null;
}

const namedIn = onceEach((sources: readonly Clause[]): Named => {
  const [capitals, kin, seconds] = [new Set<string>(), new Set<string>(), new Set<string>()];
  const behind = new Map<string, Set<string>>();
  for (const clause of sources) {
    for (const [at, { capital, stem }] of clause.tokens.entries()) {
      if (capital) capitals.add(stem);
      if (KIN.has(clause.tokens[at - 1]?.lower ?? '')) kin.add(stem);
    }
    for (const { first, second } of pairsOf(clause)) {
      behind.set(first, (behind.get(first) ?? new Set()).add(second));
      seconds.add(second);
    }
  }
  return { capitals, kin, behind, seconds, speaking: speakingIn(sources, seconds) };
});

/** Whoever is named in a sentence that tells what is said, or in the one before it where that only says 'she'. */
function speakingIn(sources: readonly Clause[], seconds: ReadonlySet<string>): Set<string> | null {
  const sentences = [...new Set(sources.map(({ sentence }) => sentence))];
  const out = new Set<string>();
  const add = ({ clauses }: Sentence) => {
    for (const stem of clauses.flatMap(peopleOf)) out.add(stem);
  };
  let tells = false;
  for (const [at, sentence] of sentences.entries()) {
    if (!sentence.clauses.some((held) => held.has(SAYING)) && !/[“"„»]/.test(sentence.text)) continue;
    tells = true;
    add(sentence);
    if (!sentence.clauses.some((held) => held.has(WHO))) continue;
    const before = sentences[at - 1];
    if (before?.of === sentence.of) add(before);
    // 'She says' may be of anybody with two names.
    for (const second of seconds) out.add(second);
  }
  return tells ? out : null;
}

/**
 * '…, says Oakby' of what somebody else says: whoever speaks is named in the sources, and in no sentence that tells what
 * is said, nor in the one before it.
 */
export function otherSpeaker(said: Clause, sources: readonly Clause[]): boolean {
  if (said.language === 'de') return false;
  const speakers = speakersOf(said);
  if (speakers.length === 0) return false;
  const { capitals, speaking } = namedIn(sources);
  const known = speakers.filter(([stem]) => capitals.has(stem!));
  return speaking !== null && known.length > 0 && known.every((stems) => !stems.some((stem) => speaking.has(stem)));
}

/** 'Ines Corvenna' of Ines Thorne: both are named, and never together, and the first with another behind it. */
export function otherSurname(said: Clause, sources: readonly Clause[]): boolean {
  const pairs = pairsOf(said);
  if (pairs.length === 0) return false;
  const { capitals, kin, behind, seconds } = namedIn(sources);
  return pairs.some(({ first, second }) => {
    if (!capitals.has(first) || !capitals.has(second)) return false;
    const its = behind.get(first);
    // 'Keld Ostrov' of Pavel Ostrov, under whom a mountain called Keld was built upon; a sister has the same surname.
    if (its === undefined) return seconds.has(second) && !kin.has(first);
    // 'Dr Farouk' is Dr Amina Farouk.
    return !its.has(second) && ![...its].some((middle) => behind.get(middle)?.has(second));
  });
}
