import type { Block } from '@grivo/core';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';
import { fetchedPicture } from './fetchedPicture.ts';

/**
 * Blocks whose videos have their stills as files of ours, so that readers ask nothing of a host before they press one. A
 * still that cannot be had, or is no picture, is done without.
 */
export async function withStills(
  tools: Pick<Tools, 'network' | 'ground'>,
  body: readonly Block[],
  signal: AbortSignal,
): Promise<Block[]> {
  return Promise.all(
    body.map(async (block): Promise<Block> => {
      if (block.type !== 'video' || block.picture || !block.still) return block;
      const bytes = await fetchedPicture(tools, block.still, signal);
      if (typeof bytes === 'string') return block;
      const kept = await keepPicture(tools.ground.db, bytes, {
        kind: 'still',
        words: block.title,
        credit: '',
        origin: block.address,
        cost: 0,
      });
      return kept.ok ? { ...block, picture: { file: kept.file, width: kept.width, height: kept.height } } : block;
    }),
  );
}
