import type { SourceKind } from '@grivo/contract';
import type { SourceReader } from '../kind.ts';
import { sheet } from './sheet.ts';
import { videos } from './videos.ts';

/** How each kind is looked at; null for those that hold only what people put into them. */
export const readers: { [Kind in SourceKind]: SourceReader<Kind> | null } = { keywords: null, sheet, videos };
