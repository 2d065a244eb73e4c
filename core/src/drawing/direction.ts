const FIRST_STRONG = /\p{L}/u;
const FROM_RIGHT =
  /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Adlam}]/u;

/** Whether a text runs from right to left, by its first letter (Unicode Standard Annex 9, rules P2 and P3). */
export function isFromRight(text: string): boolean {
  const first = FIRST_STRONG.exec(text)?.[0];
  return first !== undefined && FROM_RIGHT.test(first);
}
