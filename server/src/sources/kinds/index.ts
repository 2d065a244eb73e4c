import type { SourceKind } from '@grivo/contract';
import type { SourceReader } from '../kind.ts';
import { keywords } from './keywords.ts';
import { sheet } from './sheet.ts';
import { videos } from './videos.ts';

/** How each kind is looked at. */
export const readers: { [Kind in SourceKind]: SourceReader<Kind> } = { keywords, sheet, videos };
