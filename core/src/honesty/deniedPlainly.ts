import type { Clause } from './clause.ts';
import { partOf } from './compared.ts';
import { isDenying } from './denying.ts';
import { SPARING, setOf } from './lexicon.ts';
import { momentFits } from './moments.ts';
import { quantityFits } from './quantity.ts';

const VERBS = setOf(
  'is are was were be been has have had does do did can could will would should must may might takes took ist sind war waren hat haben hatte hatten wird werden wurde wurden kann können darf dürfen muss müssen soll sollen',
);
const PLAIN = setOf('not nicht');
/** Behind or before a 'not' they leave open what is denied: 'not all', 'not until 1998', 'not as many', 'not only'. */
const OPEN = setOf(
  'would might würde würden often over under above below much many exactly oft über unter viel viele genau all every each always only just even yet until till before after more less fewer longer shorter higher lower later earlier quite enough necessarily so as than if when unless because though although but allein alle jeder jede jedes immer nur erst noch bis bevor vor nach ehe mehr weniger länger kürzer höher niedriger später früher ganz genug so als wie wenn falls sondern weil obwohl doch bloß einmal',
);
/** Without a 'not' they deny, or say of whom or what something does not hold. */
const ELSE = setOf(
  'same alike identical equal gleich gleiche dasselbe derselbe dieselbe harm harms harmful harmed hurt hurts poison poisonous toxic dangerous danger risk spoils ruins damages kills kill die dies died schadet schaden schädlich giftig gefährlich gefahr stirbt sterben verdirbt rarely seldom hardly few little selten wenig free nothing none rest other others only except apart below under above over less fewer limit most least maximum minimum sooner younger older frei nichts außer rest andere anderen übrigen höchstens geschlossen closed shut zu mindestens unter über ab bis erst nur fällt',
);

const JOINING = setOf('and or but then so please');
const WHICH = setOf('where which that who whose wo die das der');

/** Where it says 'is not', or nothing where it does not or leaves open what is denied. */
function deniedAt({ tokens, language }: Clause): number {
  const at = tokens.findIndex(({ lower }) => PLAIN.has(lower));
  if (at === -1 || tokens.some(({ lower }, i) => i !== at && (OPEN.has(lower) || isDenying(lower, language))))
    return -1;
  // 'Where they are not': what they are not was said before.
  const ends = (tokens[at + 1]?.kind ?? 'sign') === 'sign' && WHICH.has(tokens[0]!.lower);
  // 'Do not grate it' is told to do, and 'rather leave it whole' as well.
  const [before, doing] = [tokens[at - 2], tokens[at - 1]];
  const isTold = doing?.lower === 'do' && ((before?.kind ?? 'sign') === 'sign' || JOINING.has(before!.lower));
  if (ends || isTold) return -1;
  const near = tokens.slice(Math.max(0, at - 2), at);
  return near.some(({ lower }) => VERBS.has(lower)) || language === 'de' ? at : -1;
}

/** Says no in a way of its own. */
const deniesAnyhow = (held: Clause): boolean =>
  held.once('denies anyhow', () => {
    const sparing = SPARING[held.language] ?? SPARING['en']!;
    return held.tokens.some(
      ({ lower }) =>
        ELSE.has(lower) ||
        sparing.has(lower) ||
        isDenying(lower, held.language) ||
        /^(?:un\p{L}{4}|\p{L}{4,}less$)/u.test(lower),
    );
  });

/** 'The bridge is not 84 metres long', 'It did not open in May 2019': denied is the figure or date that the sources tell. */
export function deniesFigure(said: Clause, sources: readonly Clause[]): boolean {
  const { figures, facts, tokens } = said;
  const at = deniedAt(said);
  if (figures.length + facts.moments.length === 0 || at === -1) return false;
  // What stands behind a comma or a semicolon is said for itself.
  const apart = (from: number) =>
    tokens.slice(Math.min(from, at), Math.max(from, at)).some(({ text }) => /[,;:—–]/.test(text));
  if ([...figures, ...facts.moments].some(({ from }) => apart(from))) return false;
  if (figures.some((figure) => figure.says !== 'exactly' && figure.says !== 'about' && figure.says !== 'nearly'))
    return false;
  const holds = (held: Clause): boolean =>
    figures.every((figure) =>
      held.facts.quantities.some((own) => !partOf(own) === !partOf(figure) && quantityFits(figure, own)),
    ) && facts.moments.every((moment) => held.facts.moments.some((own) => momentFits(moment, own)));
  const about = (held: Clause) =>
    said.about.length === 0 ||
    said.about.some((stem) => held.sentence.stems.has(stem)) ||
    figures.some(({ bare }) => !bare);
  const holding = sources.filter((held) => holds(held) && about(held));
  return holding.length > 0 && holding.every((held) => !deniesAnyhow(held));
}

/** A denial of which no source says anything: none of those that speak of the same denies in any way. */
export function deniesAlone(said: Clause, sources: readonly Clause[]): boolean {
  if (deniedAt(said) === -1) return false;
  if (said.figures.some((figure) => partOf(figure))) return false;
  const speaking = sources.filter((held) => said.about.some((stem) => held.sentence.stems.has(stem)));
  return speaking.length > 0 && !speaking.some((held) => held.sentence.clauses.some(deniesAnyhow));
}
