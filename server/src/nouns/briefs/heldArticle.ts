import { type ArticleDocument, editableText, lineOf, slugOf } from '@grivo/core';
import { z } from 'zod';
import { type BriefState, fieldsAt, type RunState } from '../../engine/briefState.ts';
import type { Fields } from '../../engine/performer.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { Write } from '../../ground/store/write.ts';
import type { Tools } from '../../ports/tools.ts';
import { newestOf } from '../articles/edits.ts';
import { ArticleField } from '../articles/fields.ts';
import { addRevision, ensureArticle, getArticle, readRevision } from '../articles/repository.ts';

/** A held step with the brief it belongs to. */
export interface HeldState {
  state: BriefState;
  held: RunState;
}

export interface HeldArticle {
  article: ArticleField;
  document: ArticleDocument;
  /** The body as Markdown to be edited. */
  text: string;
}

/** The article as it stands at a held step, with what the step proposes; null when there is none yet. */
export async function articleAt(sql: Sql, { state, held }: HeldState, proposed: Fields): Promise<HeldArticle | null> {
  const given = ArticleField.safeParse({ ...fieldsAt(state, held.path), ...proposed }['article']).data;
  if (!given) return null;
  const article = await newestOf(sql, given);
  const document = await readRevision(sql, article.revision);
  return { article, document, text: editableText(document.body) };
}

export type Rewritten =
  | { ok: true; fields: Fields; writes: Write[] }
  | { ok: false; place: string; problem: string; mend: string };

/** A title a person chose or wrote, and a text a person edited, become the article's, in a revision of theirs. */
export async function rewritten(
  { ground, reader }: Pick<Tools, 'ground' | 'reader'>,
  now: HeldState,
  { fields, proposed, text, person }: { fields: Fields; proposed: Fields; text: unknown; person: string },
): Promise<Rewritten> {
  const title = fields['title'] === proposed['title'] ? null : z.string().parse(fields['title']);
  if (title === null && text === undefined) return { ok: true, fields, writes: [] };
  const at = await articleAt(ground.db, now, proposed);
  if (!at) return noText('the step has no article that could be changed');
  let { document } = at;
  let counted: number | undefined;
  if (title !== null) document = { ...document, title, slug: slugOf(title) };
  if (text !== undefined) {
    const edited = z.string().max(MOST_TEXT).safeParse(text);
    if (!edited.success) return noText(`a text of at most ${MOST_TEXT.toLocaleString('en-GB')} characters is wanted`);
    const came = await reader.read('edited', { text: edited.data, article: document, as: 'markdown' });
    if (!came.ok) return noText(came.problem);
    const read = came.value;
    if (!read.ok) return { ok: false, place: 'text', problem: read.problem, mend: read.mend };
    ({ article: document, words: counted } = read);
  }
  const { id, revision: parent } = at.article;
  const { state, held } = now;
  const line = lineOf(state.nodes, held.path);
  const row = await getArticle(ground.db, id);
  const own = row?.line === line ? id : await ensureArticle(ground, state, line, document.language);
  const { revision, words, writes } = await addRevision(ground, own, parent, held.id, document, person, counted);
  return { ok: true, fields: { ...fields, article: { id: own, revision, words } }, writes };
}

const MOST_TEXT = 400_000;

function noText(problem: string): Rewritten {
  return { ok: false, place: 'text', problem, mend: 'Change it and pass it again.' };
}
