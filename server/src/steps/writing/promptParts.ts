import type { Passage } from '@grivo/core';
import { outside, outsideLine } from './fences.ts';

/* What prompts are put together from: our words first, then what others wrote, each apart. */

/** A passage with the number the writer knows it by. */
export interface NumberedPassage {
  n: number;
  passage: Passage;
}

export function passagesOf(passages: readonly NumberedPassage[]): string[] {
  return passages.map(({ n, passage }) =>
    outside(
      `passage ${n}`,
      `(from: ${passage.locator.title.replace(/\s+/g, ' ').trim().slice(0, 400)})\n${passage.text}`,
    ),
  );
}

/** The task, then what others wrote, each apart; what is empty is left out. */
export function written(task: string, ...parts: readonly (string | readonly string[])[]): string {
  return [task, ...parts.flat()].filter((part) => part !== '').join('\n\n');
}

export function own(instruction: string): string {
  return instruction.trim() === '' ? '' : `\nThe editor asks besides: ${instruction.trim()}`;
}

/** How the house sounds, in its editors' words; empty where there is no house style. */
export interface InHouse {
  house: string;
}

export function inHouse({ house }: InHouse): string {
  return house === '' ? '' : `\nThe house style: ${house}`;
}

/** What is to be taken as a model in form: it is neither material nor an order. */
export function after(examples: readonly string[]): string {
  return examples.length === 0
    ? ''
    : '\nWork after the manner of the examples: their form and length, not what they speak of.';
}

export function examplesOf(examples: readonly string[]): string[] {
  return examples.map((text, i) => outside(`example ${i + 1}`, text));
}

/** What readers search for, when the brief aims at something. */
export interface Aimed {
  aim: { phrase: string; terms: readonly string[] } | null;
}

export function aimed({ aim }: Aimed): string {
  return aim ? '\nReaders search for the first line of "searched for" and also say the others.' : '';
}

export function searchedFor({ aim }: Aimed): string {
  if (!aim) return '';
  return outside(
    'searched for',
    [aim.phrase, ...aim.terms].map((line) => line.replace(/\s+/g, ' ').slice(0, 200)).join('\n'),
  );
}

export function subjectOf(subject: string): string {
  return outsideLine('subject', subject);
}
