import type { Degree, Unit } from '@grivo/core';
import { outside, RULE_OF_FENCES } from './fences.ts';
import { type InHouse, inHouse, own, written } from './promptParts.ts';

/* What the writer is asked about texts that are there already: to say them in another language, or in other words. */

export function translatorRules(from: string, into: string): string {
  return `You put texts from ${from} into ${into}.\n${RULE_OF_FENCES}`;
}

export function putRules(language: string): string {
  return `You put texts in ${language} into other words that say the same.\n${RULE_OF_FENCES}`;
}

const HOW: Record<Degree, string> = {
  lightly: 'Use other words where there are any; leave the sentences as they are built.',
  freely: 'Use other words and other sentences, in the same order.',
  afresh: 'Tell it as if for the first time: nothing of how it was said stays, all of what was said does.',
};

export function putPrompt(
  p: InHouse & {
    language: string;
    degree: Degree;
    keep: readonly string[];
    instruction: string;
    units: readonly Unit[];
  },
): string {
  const keep =
    p.keep.length === 0 ? '' : ` These words stay as they are: ${p.keep.map((word) => `“${word}”`).join(', ')}.`;
  return written(
    `Task: put each numbered text into other words in ${p.language}. ${HOW[p.degree]} No five words in a row may stay together. Say all of it and nothing besides. Keep figures, names and the tags <1>…</1> around the words they belong to; keep the numbers of the texts.${keep}${inHouse(p)}${own(p.instruction)}`,
    p.units.map(({ n, text }) => outside(`text ${n}`, text)),
  );
}

/** Stands before a text a writer could not put into the language asked for. */
export const UNTRANSLATED = '⟦untranslated⟧';

export function translatePrompt(p: {
  from: string;
  into: string;
  instruction: string;
  house: string;
  units: readonly Unit[];
}): string {
  return written(
    `Task: put each numbered text from ${p.from} into ${p.into}. Keep figures, names and the tags <1>…</1> around the words they belong to; keep the numbers of the texts. Put ${UNTRANSLATED} before a text you cannot put into ${p.into}.${inHouse(p)}${own(p.instruction)}`,
    p.units.map(({ n, text }) => outside(`text ${n}`, text)),
  );
}

export function proposalRules(): string {
  return `You say what an editor says in other ways, each time in the language it is said in.\n${RULE_OF_FENCES}`;
}

export function proposalPrompt({ texts, many }: { texts: readonly string[]; many: number }): string {
  return written(
    `Task: give ${many} other texts that say the same as the numbered ones, each in one line, about as long as they are and in their language, no two alike. What stands in double braces, as {{ subject }}, is filled in later: every text keeps all of it, letter by letter. No other braces, no numbering, no quotation marks around them.`,
    texts.map((text, i) => outside(`text ${i + 1}`, text)),
  );
}
