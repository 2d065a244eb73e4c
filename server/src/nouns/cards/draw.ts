import { type CardDocument, type CardProblem, type DrawnCard, drawCard, fillTemplate } from '@grivo/core';
import { asDataAddress } from '../../formats/pictures/drawing.ts';
import { faceFor } from '../../formats/type/setting.ts';
import { fileAbout, fileBody } from '../../ground/files/repository.ts';
import type { Database } from '../../ground/store/database.ts';

/** What a card can speak of. */
export interface CardSubject {
  /** Fields of the brief, where there is one. */
  fields?: Readonly<Record<string, unknown>>;
  title: string;
  keyPhrase: string;
  language: string;
  /** Name of the blog its article goes to; empty where none is known. */
  blog: string;
  /** The named texts of its house style. */
  house: Readonly<Record<string, string>>;
  /** The moment it is drawn at, in milliseconds of the desk. */
  now: number;
}

/** The pictures of cards as addresses within a drawing, read once for all that are drawn together. */
export type CardPictures = ReadonlyMap<string, string>;

const filesOf = ({ ground, pictures }: CardDocument): string[] => [
  ...(ground.picture ? [ground.picture.file] : []),
  ...pictures.map(({ file }) => file),
];

/**
 * Reads the pictures a card has.
 * @param widest pixels none of them need be wider or higher than
 */
export async function picturesOfCard(db: Database, card: CardDocument, widest: number): Promise<CardPictures> {
  const read = new Map<string, string>();
  for (const file of filesOf(card)) {
    if (read.has(file) || !(await fileAbout(db, file))) continue;
    const shown = await asDataAddress(await fileBody(db, file), widest);
    if (shown !== null) read.set(file, shown);
  }
  return read;
}

export interface CardSaid extends DrawnCard {
  /** What the texts say. */
  says: string[];
}

/** Draws a card for a subject: its texts are filled, set and drawn. What cannot be is among the problems. */
export function drawnFor(card: CardDocument, subject: CardSubject, pictures: CardPictures): CardSaid {
  const fields = fieldsOf(subject);
  const unfilled: CardProblem[] = [];
  const says = card.texts.map(({ says }, text) => {
    const filled = fillTemplate(says, fields);
    if (filled.ok) return filled.text.replace(/\s+/g, ' ').trim();
    unfilled.push({ text, stops: true, sentence: filled.problem, mend: 'Mend the braces of the text.' });
    return '';
  });
  const drawn = drawCard(card, says, { face: faceFor, picture: (file) => pictures.get(file) ?? null });
  const gone = filesOf(card).some((file) => !pictures.has(file))
    ? [{ text: -1, stops: false, sentence: 'One of its pictures is gone.', mend: 'Choose another, or take it out.' }]
    : [];
  return { ...drawn, says, problems: [...unfilled, ...drawn.problems, ...gone] };
}

function fieldsOf({ fields, title, keyPhrase, language, blog, house, now }: CardSubject): Record<string, unknown> {
  // As everywhere: English days are said as in Britain.
  const day = new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });
  return {
    ...fields,
    title,
    keyPhrase: keyPhrase || title,
    language,
    blog: { name: blog },
    house,
    day: day.format(now),
  };
}

/** What a card shows, for whoever does not see it: its texts in their order. */
export function cardAlternative(says: readonly string[], language: string): string {
  const texts = says.filter((text) => text !== '');
  return language.startsWith('de')
    ? `Karte mit den Worten ${texts.map((text) => `„${text}“`).join(', ')}`
    : `Card with the words ${texts.map((text) => `“${text}”`).join(', ')}`;
}
