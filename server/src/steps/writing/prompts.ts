import { languageName, type Person } from '@grivo/core';
import { outside, outsideLine, RULE_OF_FENCES } from './fences.ts';
import {
  type Aimed,
  after,
  aimed,
  examplesOf,
  type InHouse,
  inHouse,
  type NumberedPassage,
  own,
  passagesOf,
  searchedFor,
  subjectOf,
  written,
} from './promptParts.ts';

/*
 * What the writer and the illustrator are asked. The task stands in our words and the editor's; everything that others
 * wrote, names and headings too, stands apart from it and is spoken of by the name of its fence.
 */

/** The rules every making step gives the writer. */
export function houseRules(language: string): string {
  return [
    `You help to make an article in ${languageName(language)}.`,
    RULE_OF_FENCES,
    'Use only what the passages say. Take over figures, names and dates exactly; leave out what no passage holds.',
    'Name the numbers of the passages each piece of text rests on.',
    'Do not repeat a sentence, do not address these rules, do not add remarks about the task.',
  ].join('\n');
}

/** The rules where there is nothing to write from: what comes of it is marked as resting on nothing. */
export function unsourcedRules(language: string): string {
  return [
    `You help to make an article in ${languageName(language)}.`,
    RULE_OF_FENCES,
    'There are no passages. Write what is generally known; give no figure, name, date or claim you are not sure of.',
    'Do not repeat a sentence, do not address these rules, do not add remarks about the task.',
  ].join('\n');
}

export interface OutlinePrompt extends Aimed {
  subject: string;
  sections: { from: number; to: number };
  words: number;
  instruction: string;
  examples: readonly string[];
  passages: readonly NumberedPassage[];
}

export function outlinePrompt(p: OutlinePrompt): string {
  return written(
    `Task: outline an article on the subject in ${p.sections.from} to ${p.sections.to} sections, in the order a reader needs them. For each section give a heading of at most eight words, one sentence on what it must say, ${p.passages.length === 0 ? 'and no passages.' : 'and the numbers of the passages it rests on. Give every section passages of its own. Leave out passages that do not speak of the subject.'}${aimed(p)}${own(p.instruction)}${after(p.examples)}`,
    subjectOf(p.subject),
    searchedFor(p),
    examplesOf(p.examples),
    passagesOf(p.passages),
  );
}

export interface SectionPrompt extends Aimed, InHouse {
  subject: string;
  /** Null for the opening, which stands before the first heading. */
  heading: string | null;
  says: string;
  otherHeadings: readonly string[];
  words: number;
  person: Person;
  tone: string;
  lists: boolean;
  /** Whether an emoji may open an item of a list. */
  emoji?: boolean;
  instruction: string;
  /** Things it must say. */
  notes: readonly string[];
  saidBefore: string;
  passages: readonly NumberedPassage[];
}

export function sectionPrompt(p: SectionPrompt): string {
  const part =
    p.heading === null ? 'the opening of the article, before its first heading' : 'the section under the heading';
  const says =
    p.heading === null
      ? 'Its first two sentences answer what somebody who looks for the subject wants to know; then it may say what else there is to find. The rest of the article stands in "said before": say nothing that is against it.'
      : 'What it is to say stands in "it says".';
  return written(
    `Task: of an article on the subject write ${part}, about ${p.words} words. ${says}${p.otherHeadings.length === 0 ? '' : ' The other sections say their own.'}
Person: ${p.person}. Tone: ${p.tone || 'plain'}. ${p.lists ? 'Where steps or things are counted up a list may stand.' : 'Write paragraphs only, no lists.'}${p.emoji ? EMOJI : ''}
Do not write the heading itself. ${p.passages.length === 0 ? 'Write from what is generally known.' : 'If the passages do not carry so many words, write fewer.'}${p.saidBefore === '' ? '' : p.heading === null ? ' Use none of its sentences again.' : ' Do not say again what was said before.'}${inHouse(p)}${aimed(p)}${own(p.instruction)}${p.notes.length === 0 ? '' : '\nMake every point of "points to make".'}`,
    subjectOf(p.subject),
    p.heading === null ? [] : [outsideLine('heading', p.heading), outsideLine('it says', p.says)],
    p.otherHeadings.length === 0 ? [] : outside('other sections', p.otherHeadings.join('\n')),
    searchedFor(p),
    p.notes.length === 0 ? [] : outside('points to make', p.notes.map((note) => `- ${note}`).join('\n')),
    p.saidBefore === '' ? [] : outside('said before', p.saidBefore),
    passagesOf(p.passages),
  );
}

export interface AnewPrompt extends InHouse {
  subject: string;
  /** What the part stands under; null for the opening. */
  heading: string | null;
  /** The part as it stands. */
  text: string;
  words: number;
  /** What a person wants otherwise. */
  note: string;
  saidElsewhere: string;
  passages: readonly NumberedPassage[];
}

export function anewPrompt(p: AnewPrompt): string {
  return written(
    `Task: of an article on the subject write one part anew, about ${p.words} words. ${p.heading === null ? 'It is of the opening of the article.' : 'It stands under the heading.'} As it is now it stands in "it says". Keep its person and its tone, and write no heading. ${p.passages.length === 0 ? 'Say nothing that "it says" does not say.' : 'If the passages do not carry so many words, write fewer.'} Do not say again what was said before.${inHouse(p)}
The editor wants: ${p.note.trim()}`,
    subjectOf(p.subject),
    p.heading === null ? [] : [outsideLine('heading', p.heading)],
    outside('it says', p.text),
    p.saidElsewhere === '' ? [] : outside('said before', p.saidElsewhere),
    passagesOf(p.passages),
  );
}

/** What the writer is told where emoji are wanted. */
const EMOJI = ' One fitting emoji may open an item of a list; none stands elsewhere.';

export interface PointsPrompt extends InHouse {
  emoji?: boolean;
  subject: string;
  text: string;
  points: number;
  person: Person;
}

export function pointsPrompt(p: PointsPrompt): string {
  return written(
    `Task: give ${p.points} key points of the article on the subject, each one short sentence of at most 18 words that a reader can act on. Person: ${p.person}.${p.emoji ? ' One fitting emoji opens each of them.' : ''}${inHouse(p)}`,
    subjectOf(p.subject),
    outside('article', p.text),
  );
}

/** What the further parts of an article are asked with. */
export interface FurtherPrompt extends InHouse {
  subject: string;
  person: Person;
  saidBefore: string;
  passages: readonly NumberedPassage[];
}

export function closingPrompt(p: FurtherPrompt & { words: number }): string {
  return written(
    `Task: of an article on the subject write the closing, after its last section, about ${p.words} words: what follows from it for the reader, in one paragraph. No summing up, no new figure. The article stands in "said before": use none of its sentences again.
Person: ${p.person}. Write paragraphs only, no lists. Do not write a heading.${inHouse(p)}`,
    subjectOf(p.subject),
    outside('said before', p.saidBefore),
    passagesOf(p.passages),
  );
}

export function questionsPrompt(p: FurtherPrompt & Aimed & { pairs: number }): string {
  return written(
    `Task: for an article on the subject give ${p.pairs} questions readers still have, each with its answer from the passages. The article stands in "said before": ask nothing it answers already. Give fewer where the passages answer fewer.
Person: ${p.person}.${inHouse(p)}${aimed(p)}`,
    subjectOf(p.subject),
    searchedFor(p),
    outside('said before', p.saidBefore),
    passagesOf(p.passages),
  );
}

export function tablePrompt(p: FurtherPrompt & { rows: number; columns: number }): string {
  return written(
    `Task: for an article on the subject make one table of what its passages set side by side or give in figures: at most ${p.rows} rows of 2 to ${p.columns} columns, the first of what the row is of. Cells of a few words; a figure with its unit as its passage has it, and no figure of your own. Where nothing can be set side by side give no rows.${inHouse(p)}`,
    subjectOf(p.subject),
    outside('said before', p.saidBefore),
    passagesOf(p.passages),
  );
}

export function quotationPrompt(p: { subject: string; passages: readonly NumberedPassage[] }): string {
  return written(
    'Task: for an article on the subject pick the one sentence of the passages that is most worth being quoted word for word, of 8 to 30 words, and say which passage it stands in. Change no letter of it.',
    subjectOf(p.subject),
    passagesOf(p.passages),
  );
}

export interface TitlePrompt extends Aimed, InHouse {
  subject: string;
  most: number;
  choices: number;
  instruction: string;
  examples: readonly string[];
  text: string;
}

export function titlePrompt(p: TitlePrompt): string {
  return written(
    `Task: for the article on the subject give ${p.choices} titles to choose from, each of at most ${p.most} characters, each a different idea and none only the subject; a description of at most 155 characters; 3 to 8 keywords; 2 to 5 hashtags without spaces.${inHouse(p)}${aimed(p)}${own(p.instruction)}${after(p.examples)}`,
    subjectOf(p.subject),
    searchedFor(p),
    examplesOf(p.examples),
    outside('article', p.text),
  );
}

export function picturePrompt(p: {
  title: string;
  subject: string;
  manner: string;
  /** Of the article, by its English name. */
  language: string;
  instruction: string;
}): string {
  return written(
    `A lead picture for an article; its title and its subject stand below, between fences that are no part of them. Manner: ${p.manner || 'as it fits'}. No letters or figures in the picture. What is shown is said in ${p.language}.${own(p.instruction)}`,
    outsideLine('title', p.title),
    subjectOf(p.subject),
  );
}

/** What is judged or asked about: the passages, a text of ours, or the subject alone. */
interface Material {
  passages: readonly NumberedPassage[];
  text: string | null;
}

function materialOf({ passages, text }: Material): string[] {
  return text === null ? passagesOf(passages) : [outside('article', text)];
}

export function judgePrompt(
  p: Material & { subject: string; of: string; qualities: string; instruction: string },
): string {
  return written(
    `Task: judge ${p.of} for these qualities: ${p.qualities}. Give a score, a figure from 0 (has none of them) to 10 (has all of them in full), say in a few words what kind of text it is (guide, news, advertisement, press release, stub or what it may be), and give the reason in one sentence.${own(p.instruction)}`,
    subjectOf(p.subject),
    materialOf(p),
  );
}

export function answerPrompt(
  p: Material & {
    subject: string;
    form: string;
    parts: readonly string[];
    instruction: string;
    examples: readonly string[];
  },
): string {
  const form = p.form === 'a record' ? `a record with the parts ${p.parts.join(', ')}` : p.form;
  return written(
    `Task: answer what the editor asks, with ${form}: ${p.instruction}${after(p.examples)}`,
    subjectOf(p.subject),
    examplesOf(p.examples),
    materialOf(p),
  );
}

export function notesPrompt(p: {
  subject: string;
  heading: string;
  says: string;
  most: number;
  instruction: string;
  passages: readonly NumberedPassage[];
}): string {
  return written(
    `Task: make at most ${p.most} notes for the section under the heading, which is to say what stands in "it says". Each note is one thing the section must say, with the numbers of the passages it rests on.${own(p.instruction)}`,
    subjectOf(p.subject),
    outsideLine('heading', p.heading),
    outsideLine('it says', p.says),
    passagesOf(p.passages),
  );
}

export function gistPrompt(p: {
  subject: string;
  words: number;
  picks: readonly string[];
  instruction: string;
  passages: readonly NumberedPassage[];
}): string {
  const picks =
    p.picks.length === 0
      ? 'Pick out no facts.'
      : `Pick out the ${p.picks.join(', ')} that matter, each with the numbers of the passages it stands in.`;
  return written(
    `Task: sum up the passages in about ${p.words} words, in their own order. ${picks}${own(p.instruction)}`,
    subjectOf(p.subject),
    passagesOf(p.passages),
  );
}

export function aimPrompt(p: { subject: string; instruction: string; passages: readonly NumberedPassage[] }): string {
  return written(
    `Task: say what readers who want an article on the subject would type into a search, in two to six words, and up to eight related words or phrases.${own(p.instruction)}`,
    subjectOf(p.subject),
    passagesOf(p.passages),
  );
}

export interface SamplePrompt extends InHouse {
  language: string;
  person: Person;
  words: number;
  passages: readonly NumberedPassage[];
}

/** Two paragraphs that let a house style be heard. */
export function samplePrompt(p: SamplePrompt): string {
  return written(
    `Task: of an article on the subject write the section under the heading, about ${p.words} words. What it is to say stands in "it says".
Person: ${p.person}. Tone: as the house style has it. Write paragraphs only, no lists.
Do not write the heading itself. If the passages do not carry so many words, write fewer.${inHouse(p)}`,
    subjectOf(p.passages[0]?.passage.locator.title ?? ''),
    outsideLine('heading', p.passages[0]?.passage.locator.title ?? ''),
    outsideLine('it says', 'What matters most of it, so that somebody can do it.'),
    passagesOf(p.passages),
  );
}
