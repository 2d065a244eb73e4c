import type { Block } from '@grivo/core';
import { keepPicture } from '../nouns/pictures/keep.ts';
import type { Tools } from '../ports/tools.ts';

const TIME_LIMIT_MS = 20_000;
const MOST_BYTES = 15_000_000;

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
      const outcome = await tools.network.call({
        method: 'GET',
        address: block.still,
        timeLimitMs: TIME_LIMIT_MS,
        maxBytes: MOST_BYTES,
        signal,
      });
      if (outcome.kind !== 'reply' || outcome.reply.status !== 200) return block;
      const kept = await keepPicture(tools.ground.db, outcome.reply.body, {
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
