import { createHash } from 'node:crypto';
import type { StyleComparison, StyleLearnt, StyleText } from '@grivo/contract';
import {
  type ArticleDocument,
  comparedWithStyle,
  describedBy,
  favouredWords,
  figuresOver,
  type HouseStyleDocument,
  handDistance,
  handOf,
  isOfHand,
  ownText,
  rounded,
  sharesOver,
  type TextFigures,
} from '@grivo/core';
import { languageOf } from '../../formats/language/recognise.ts';
import type { Ground } from '../../ground/ground.ts';
import type { ReadingRoom } from '../../ground/reading/room.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';

export interface KeptText extends Omit<StyleText, 'figures' | 'words' | 'sentences'> {
  read: TextFigures;
  body: string;
}

/** Texts of a style at most; more would tell nothing more. */
export const MOST_TEXTS = 100;
/** Words below which a text tells nothing of how it sounds. */
export const LEAST_WORDS = 40;

type Row = Omit<KeptText, 'read' | 'body'> & { figures: TextFigures };

export async function textsOf(sql: Sql, style: string): Promise<KeptText[]> {
  const rows = await sql.rows<Omit<KeptText, 'read'> & { figures: TextFigures }>(
    'SELECT id, name, address, language, figures, body, added_desk AS addedDesk FROM house_style_text WHERE style = ? ORDER BY added_desk, id',
    [style],
  );
  return rows.map(({ figures, addedDesk, ...row }) => ({ ...row, read: figures, addedDesk: Number(addedDesk) }));
}

/** What was learnt lately, by the texts it was learnt from. */
const known = new Map<string, StyleLearnt | null>();
const MOST_KNOWN = 50;

/** The texts of a style, without their words, and what they have in common. */
export async function learntOf(sql: Sql, style: string): Promise<{ samples: StyleText[]; learnt: StyleLearnt | null }> {
  const rows = await sql.rows<Row>(
    'SELECT id, name, address, language, figures, added_desk AS addedDesk FROM house_style_text WHERE style = ? ORDER BY added_desk, id',
    [style],
  );
  const key = rows.map(({ id }) => id).join(' ');
  let learnt = known.get(key);
  if (learnt === undefined) {
    learnt = learntFrom(rows.length === 0 ? [] : await textsOf(sql, style));
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(key, learnt);
  }
  return {
    samples: rows.map(({ figures: { figures, words, sentences }, addedDesk, ...text }) => ({
      ...text,
      words,
      sentences,
      figures,
      addedDesk: Number(addedDesk),
    })),
    learnt,
  };
}

/** Why a text was not taken. */
export type NotLearnt = 'too short' | 'there already' | 'too many';
/** Letters of a text that are looked at: what stands beyond them would say the same. */
const MOST_LETTERS = 100_000;

/** Keeps a text to learn from; one that is there already is not counted twice. */
export async function addText(
  ground: Ground,
  reader: ReadingRoom,
  style: string,
  { name, address, text, language }: { name: string; address: string; text: string; language: string | null },
): Promise<NotLearnt | { problem: string } | null> {
  const body = text
    .slice(0, MOST_LETTERS)
    .replace(/\r\n?/g, '\n')
    .replace(/[ \t]+/g, ' ')
    .trim();
  const spoken = language ?? languageOf(body) ?? 'en';
  const read = await reader.read('figures', { text: body, language: spoken });
  if (!read.ok) return { problem: read.problem };
  const figures = read.value;
  if (figures.words < LEAST_WORDS) return 'too short';
  return ground.db.transaction<NotLearnt | null>(async (sql) => {
    const [there] = await sql.rows<{ n: number }>(
      'SELECT COUNT(*) AS n FROM house_style_text WHERE style = ? FOR UPDATE',
      [style],
    );
    if (Number(there?.n ?? 0) >= MOST_TEXTS) return 'too many';
    const digest = createHash('sha256').update(body).digest('hex');
    const made = await sql.run(
      'INSERT IGNORE INTO house_style_text (id, style, name, address, language, figures, body, digest, added_desk) VALUES (?)',
      [
        [
          ground.ids(),
          style,
          name.slice(0, 300),
          address.slice(0, 1_000),
          spoken,
          JSON.stringify(figures),
          body,
          digest,
          ground.desk.now(),
        ],
      ],
    );
    if (made === 0) return 'there already';
    await tellChange(sql, ground, 'style', style);
    return null;
  });
}

export async function removeText(ground: Ground, style: string, id: string): Promise<boolean> {
  const gone = await ground.db.run('DELETE FROM house_style_text WHERE id = ? AND style = ?', [id, style]);
  if (gone > 0) await tellChange(ground.db, ground, 'style', style);
  return gone > 0;
}

/** The language most of the texts are in. */
function languageOfTexts(texts: readonly KeptText[]): string {
  const words = new Map<string, number>();
  for (const { language, read } of texts) words.set(language, (words.get(language) ?? 0) + read.words);
  return [...words].sort(([, a], [, b]) => b - a)[0]?.[0] ?? 'en';
}

/** What texts have in common; null without any. */
export function learntFrom(texts: readonly KeptText[]): StyleLearnt | null {
  if (texts.length === 0) return null;
  const language = languageOfTexts(texts);
  // Texts in another language say nothing of how this one is written.
  const own = texts.filter((one) => one.language === language);
  const read = own.map((one) => one.read);
  const figures = figuresOver(read);
  return {
    words: texts.reduce((sum, one) => sum + one.read.words, 0),
    figures,
    persons: sharesOver(read, ({ persons }) => persons),
    openings: sharesOver(read, ({ openings }) => openings),
    favours: favouredWords(
      own.map(({ body }) => body),
      language,
    ),
    describes: describedBy(read, figures),
  };
}

/** A style as its texts have it: their ranges, who they speak as, and where nobody wrote one, a description. */
export function asLearnt(document: HouseStyleDocument, learnt: StyleLearnt, described: boolean): HouseStyleDocument {
  const { I, we, you } = learnt.persons;
  const most = Math.max(I, we, you);
  const person =
    most === 0
      ? 'third person'
      : we === most || we >= 0.2
        ? 'first person plural'
        : I === most
          ? 'first person singular'
          : 'second person';
  return {
    ...document,
    person,
    ranges: Object.fromEntries(learnt.figures.map(({ name, range }) => [name, range])),
    voice: described || document.voice === '' ? learnt.describes : document.voice,
  };
}

const LEAST_FOR_HAND = 3;

/** An article beside a style and beside the hand of its texts. */
export function besideStyle(
  article: { id: string; document: ArticleDocument },
  style: HouseStyleDocument,
  texts: readonly KeptText[],
): StyleComparison {
  const { document } = article;
  const own = texts.filter(({ language }) => language.slice(0, 2) === document.language.slice(0, 2));
  const text = ownText(document);
  const hand =
    own.length < LEAST_FOR_HAND
      ? null
      : handOf(
          own.map(({ body }) => body),
          document.language,
        );
  return {
    article: { id: article.id, title: document.title },
    ...comparedWithStyle(document, style),
    hand: hand && {
      distance: rounded(handDistance(hand, text), 2),
      nearest: rounded(Math.min(...hand.own), 2),
      farthest: rounded(Math.max(...hand.own), 2),
      alike: isOfHand(hand, text),
    },
  };
}
