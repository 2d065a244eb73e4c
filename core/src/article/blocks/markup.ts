import type { RootContent } from 'hast';
import type { OwnersMarkup } from '../block.ts';
import type { BlockKind } from './kind.ts';

export const ownersMarkup: BlockKind<OwnersMarkup> = {
  isStatement: false,
  texts: (block) => block,
  isEmpty: ({ markup }) => markup.trim() === '',
  html: ({ markup }) => ({ type: 'raw', value: markup }) as unknown as RootContent,
  markdown: ({ markup }) => [{ type: 'html', value: markup }],
  // Nothing prints it.
  flow: () => [],
  editing: {
    name: 'owners-markup',
    named: true,
    write: ({ id }) => ({ label: [], attributes: { id }, children: null }),
    read: ({ own }) => own as OwnersMarkup,
  },
};
