import { choicesFrom } from '../words/language.ts';
import type { ReadRequest } from './request.ts';

/** Other ways to say a text that nothing is known of: frames around it, and nothing else. It is a stand-in. */

type Frame = (text: string, small: string) => string;

const OF_TITLES: Record<'en' | 'de', readonly Frame[]> = {
  en: [
    (text) => `${text}, step by step`,
    (text) => `${text}: the short version`,
    (text) => `${text}, plainly put`,
    (text) => `${text}: what counts`,
    (text) => `${text}, for a first time`,
    (text) => `Before you begin: ${text}`,
    (text) => `${text}, and what goes wrong`,
    (text) => `${text}: a closer look`,
  ],
  de: [
    (text) => `${text}, Schritt für Schritt`,
    (text) => `${text}: das Wichtigste`,
    (text) => `${text}, einfach gesagt`,
    (text) => `${text}: worauf es ankommt`,
    (text) => `Vor dem Anfang: ${text}`,
    (text) => `${text}, genau betrachtet`,
  ],
};

const OF_SENTENCES: Record<'en' | 'de', readonly Frame[]> = {
  en: [
    (_, small) => `In short, ${small}`,
    (_, small) => `As we like to say, ${small}`,
    (_, small) => `Put plainly, ${small}`,
    (_, small) => `One thing more: ${small}`,
    (_, small) => `To say it once again, ${small}`,
    (_, small) => `And remember, ${small}`,
  ],
  de: [
    (text) => `Kurz gesagt: ${text}`,
    (text) => `Noch etwas: ${text}`,
    (text) => `Und zum Merken: ${text}`,
    (text) => `Anders gesagt: ${text}`,
  ],
};

const GERMAN = /\b(?:der|die|das|und|ist|nicht|ein|eine|mit|wir|Sie)\b/;

export function proposals({ task, texts, seed }: ReadRequest): string[] {
  const wanted = Number(/give (\d+) other texts/.exec(task)?.[1] ?? 5);
  const chance = choicesFrom(`${seed}proposals`);
  const all = texts.flatMap(({ text }) => {
    const frames = (/[.!?]$/.test(text) ? OF_SENTENCES : OF_TITLES)[GERMAN.test(text) ? 'de' : 'en'];
    const small = /^(?:I\b|\{)/.test(text) ? text : text.charAt(0).toLowerCase() + text.slice(1);
    return frames.map((frame) => frame(text, small));
  });
  const from = chance(all.length || 1);
  return [...all.slice(from), ...all.slice(0, from)].slice(0, wanted);
}
