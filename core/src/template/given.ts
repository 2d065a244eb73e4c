/**
 * Signs around a text of others inside a text of ours, until it is known how they are to be told apart. They are
 * noncharacters (Unicode 16, section 23.7), kept for a program's own use; no text that comes in has any of them.
 */
export const GIVEN = { opens: '\ufdd0', named: '\ufdd1', closes: '\ufdd2', mark: '\ufdd3' } as const;

/** What was told apart inside another text has its name with it. */
const OPENED = /\ufdd0[^\ufdd0-\ufdef]*\ufdd1/g;
const SIGNS = /[\ufdd0-\ufdef]/g;

export function withoutSigns(text: string): string {
  return text.replace(OPENED, '').replace(SIGNS, '');
}

/** A text of others, with what it is. */
export function given(name: string, text: string): string {
  return `${GIVEN.opens}${withoutSigns(name)}${GIVEN.named}${withoutSigns(text)}${GIVEN.closes}`;
}
