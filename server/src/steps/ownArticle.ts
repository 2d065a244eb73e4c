import { type ArticleDocument, lineOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import type { Write } from '../ground/store/write.ts';
import { givenArticle } from '../nouns/articles/edits.ts';
import { addRevision, ensureArticle, getArticle, readRevision } from '../nouns/articles/repository.ts';
import type { Tools } from '../ports/tools.ts';

/** The article a step may change, with the document as it stands and the way to give it a new one. */
export interface OwnArticle {
  document: ArticleDocument;
  id: string;
  revision: string;
  change(
    document: ArticleDocument,
  ): Promise<{ article: { id: string; revision: string; words: number }; writes: Write[] }>;
}

/**
 * The article the step at hand works on. Only the main line changes the main article: a branch or a turn that changes one
 * from outside itself gets a copy, from its first change on.
 */
export async function ownArticle(tools: Tools, context: StepContext): Promise<OwnArticle | null> {
  const given = await givenArticle(tools.ground.db, context.fields);
  if (!given) return null;
  const { brief, run } = context;
  const document = await readRevision(tools.ground.db, given.revision);
  const line = lineOf(brief.nodes, run.path);
  const row = await getArticle(tools.ground.db, given.id);
  return {
    document,
    id: given.id,
    revision: given.revision,
    async change(changed) {
      const id = row?.line === line ? given.id : await ensureArticle(tools.ground, brief, line, changed.language);
      const { revision, words, writes } = await addRevision(tools.ground, id, given.revision, run.id, changed);
      return { article: { id, revision, words }, writes };
    },
  };
}
