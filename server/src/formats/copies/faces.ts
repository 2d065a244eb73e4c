import { stretchesIn } from '../type/stretches.ts';

export type { Stretch } from '../type/stretches.ts';
export type Style = '400-normal' | '700-normal' | '400-italic' | '700-italic';

/** A text in stretches of one face of the book each, or the first letter that none of them shows. */
export const stretchesOf = (text: string, style: Style): ReturnType<typeof stretchesIn> =>
  stretchesIn(['literata', 'noto-naskh-arabic', 'noto-serif-hebrew', 'noto-serif-jp', 'noto-emoji'], text, style);
