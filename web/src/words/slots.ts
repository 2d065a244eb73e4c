import type { Slot } from '@grivo/contract';

/** What a slot is told from others by: two articles may go out in the same moment. */
export const slotKey = ({ at, article, brief }: Slot): string => `${at} ${article ?? brief ?? ''}`;
