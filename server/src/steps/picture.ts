import type { ArticleDocument, BlockOf } from '@grivo/core';
import type { StepResult } from '../engine/performer.ts';

/** What a picture is wanted for. */
export interface PictureWanted {
  document: ArticleDocument;
  /** What stands over it: the title of the article, or the heading of a section. */
  title: string;
  /** What it is to show, in the words it is looked for by. */
  subject: string;
  /** What is said where it stands; empty where that is the article. */
  about: string;
  /** The id of its block. */
  id: string;
  lead: boolean;
  /** Files that stand in the article already. */
  there: ReadonlySet<string>;
}

/** A picture and where it is from, none, or why the step ends. */
export type Found =
  | {
      kind: 'picture';
      figure: BlockOf<'figure'>;
      from: 'drawn' | 'still' | 'own' | 'card' | 'library' | 'named' | 'page';
    }
  | { kind: 'none'; why?: string }
  | { kind: 'ended'; result: StepResult };

export const figureOf = (
  { id, lead }: Pick<PictureWanted, 'id' | 'lead'>,
  { file, width, height }: { file: string; width: number; height: number },
  alternative: string,
  credit: string,
  /** Where the credit leads; nowhere without one. */
  address: string | null = null,
): BlockOf<'figure'> => ({
  type: 'figure',
  id,
  file,
  width,
  height,
  alternative,
  ...(credit === ''
    ? {}
    : { credit: [{ text: credit, ...(address ? { link: { to: 'address' as const, address } } : {}) }] }),
  lead,
});
