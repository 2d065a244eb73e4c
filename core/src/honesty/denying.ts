import { remembered } from '../sentence/remembered.ts';
import { isDeniedBound } from './bounds.ts';
import { NEGATORS, setOf } from './lexicon.ts';
import { isNumberWord } from './numbers.ts';
import type { Token } from './token.ts';

/** Whether a word denies, alone or by what it means. */
export const isDenying = remembered((word, language) => {
  const { words, lexical } = NEGATORS[language] ?? NEGATORS['en']!;
  return words.has(word) || lexical.some((form) => form.test(word));
});

export const isNegator = ({ kind, lower }: Token, language: string): boolean =>
  kind === 'word' && isDenying(lower, language);

/** Whether what stands at a place denies, by itself or with what stands before it. */
export const deniesAt = (tokens: readonly Token[], at: number, language: string): boolean =>
  (isNegator(tokens[at]!, language) && !boundsFigure(tokens, at, language) && !takesPlace(tokens, at)) ||
  isAdvisedAgainst(tokens, at) ||
  fallsOut(tokens, at);

export const FALLING = setOf('fällt fallen fiel fielen');
/** 'Im August fällt er aus'. */
const fallsOut = (tokens: readonly Token[], at: number): boolean =>
  tokens[at]!.lower === 'aus' &&
  (tokens[at + 1]?.kind ?? 'sign') === 'sign' &&
  tokens.slice(0, at).some(({ lower }) => FALLING.has(lower));

const FINDING = setOf('findet finden fand fanden gefunden stattfindet');
/** 'Der Markt findet samstags statt' denies nothing. */
export const takesPlace = (tokens: readonly Token[], at: number): boolean =>
  tokens[at]!.lower === 'statt' && tokens.slice(0, at).some(({ lower }) => FINDING.has(lower));

/** 'No more than 30 degrees'. */
const boundsFigure = (tokens: readonly Token[], at: number, language: string): boolean => {
  const figure = tokens[at + 3];
  return (
    figure !== undefined &&
    isDeniedBound(tokens, at) &&
    !/^eine?[nmr]?$/.test(figure.lower) &&
    (figure.kind === 'number' || figure.unit || isNumberWord(figure.lower, language))
  );
};

const ADVISING =
  /^(?:advis(?:e|es|ed|ing)|advice|warn(?:s|ed|ing)?|decid(?:e|es|ed)|vot(?:e|es|ed)|argu(?:e|es|ed)|recommend(?:s|ed)?|speaks?|spoke)$/;

/** 'Advises against limes': what is advised is to have none. */
const isAdvisedAgainst = (tokens: readonly Token[], at: number): boolean =>
  tokens[at]!.lower === 'against' && tokens.slice(Math.max(0, at - 2), at).some(({ lower }) => ADVISING.test(lower));

const NOTHING = setOf('nothing nichts');
const MORE = setOf('more else weiter mehr anderes sonst');
const THAN_THAT = setOf('than that this it als das dies');

/** '…, and nothing more than that' behind what is said: it is all there is to say, and denies none of it. */
export function saysNoMore(tokens: readonly Token[], at: number): boolean {
  const [own, next] = [tokens[at]!.lower, tokens[at + 1]?.lower ?? ''];
  const before = tokens[at - 1]?.lower ?? '';
  if (!NOTHING.has(own) || !(MORE.has(next) || MORE.has(before)) || !tokens.slice(0, at).some(({ content }) => content))
    return false;
  return tokens.slice(at + 1).every(({ kind, lower }) => kind === 'sign' || MORE.has(lower) || THAN_THAT.has(lower));
}

export const FREELY = setOf('extra charge additional further doubt matter');

/** 'Crisp or not is decided early' denies neither. */
export const isWhether = (tokens: readonly Token[], at: number): boolean =>
  /^(?:not|nicht)$/.test(tokens[at]!.lower) && /^(?:or|oder)$/.test(tokens[at - 1]?.lower ?? '');

/** 'Nothing tells table salt from sea salt': both are alike. */
export const tellsNothingApart = (tokens: readonly Token[], at: number): boolean =>
  tokens[at]!.lower === 'nothing' && /^tells?$/.test(tokens[at + 1]?.lower ?? '');
