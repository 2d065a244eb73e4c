import { stemsOf } from '../words/language.ts';

/** Signs for things the material speaks of, by the words that speak of them. */
const SIGNS: readonly (readonly [string, string])[] = [
  ['🧂', 'salt salty brine salz lake'],
  ['💧', 'water rain wet wasser regen'],
  ['🥬', 'cabbage kraut sauerkraut leaf leaves kohl kraut'],
  ['🌡️', 'temperature degrees warm cold celsius temperatur grad'],
  ['⏳', 'hours days weeks months minutes stunden tage wochen'],
  ['⚖️', 'weigh weight gram grams kilogram scale wiegen gramm'],
  ['🫙', 'jar jars lid lids glass crock glas deckel'],
  ['🫧', 'bubbles gas airlock ferment blasen'],
  ['🥒', 'cucumber cucumbers pickle gurke gurken'],
  ['🧽', 'clean wash rinse soap putzen'],
];

const BY_STEM = new Map(SIGNS.flatMap(([sign, words]) => stemsOf(words).map((stem) => [stem, sign] as const)));

/** A text opened by a sign of what it speaks of first; a tick where there is none for it. */
export function opened(text: string): string {
  const sign = stemsOf(text).flatMap((stem) => BY_STEM.get(stem) ?? [])[0] ?? '✅';
  return `${sign} ${text}`;
}
