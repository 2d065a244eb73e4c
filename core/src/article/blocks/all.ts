import type { Block, BlockOf, BlockType } from '../block.ts';
import { callToAction, fold, questionAnswer } from './asks.ts';
import { contents, heading } from './headings.ts';
import type { BlockKind } from './kind.ts';
import { keyPoints, list, relatedArticles } from './lists.ts';
import { ownersMarkup } from './markup.ts';
import { figure, placeholder, video } from './pictures.ts';
import { closing, disclosure, paragraph, standingText } from './prose.ts';
import { quote } from './quote.ts';
import { chart, table } from './tables.ts';

/** Every kind of block. What a form of an article shows of one stands here and nowhere else. */
export const BLOCKS: { readonly [T in BlockType]: BlockKind<BlockOf<T>> } = {
  heading,
  paragraph,
  list,
  table,
  figure,
  quote,
  video,
  chart,
  'key points': keyPoints,
  'question and answer': questionAnswer,
  'call to action': callToAction,
  closing,
  'standing text': standingText,
  disclosure,
  fold,
  'related articles': relatedArticles,
  "owner's markup": ownersMarkup,
  contents,
  placeholder,
};

/** The kind of a block, to be asked of that block alone. */
export function kindOf<B extends Block>(block: B): BlockKind<B> {
  return BLOCKS[block.type] as unknown as BlockKind<B>;
}
