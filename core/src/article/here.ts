import type { Block } from './block.ts';
import type { Here } from './blocks/kind.ts';
import type { Resolve } from './inline.ts';
import { makeAnchors } from './slug.ts';

/** What the blocks of a body are drawn with. */
export function hereOf(body: readonly Block[], resolve: Resolve, making = false): Here {
  const next = makeAnchors();
  const anchors = new Map<Block, string>(
    body.flatMap((block) => (block.type === 'heading' ? [[block, next(block.text)] as const] : [])),
  );
  return { resolve, body, making, anchor: (heading) => anchors.get(heading) ?? '' };
}
