/** Finding figures (numbers people would check) in texts. */

const NUMBER = /\d+(?:[.,\u00a0\u202f ]\d{3})*(?:[.,]\d+)?/g;

/** Figures of a text as plain numbers, in order. '2,5' and '2.5' are the same figure, '1,400' and '1.400' too. */
export function figuresOf(text: string): string[] {
  return [...text.matchAll(NUMBER)].map((match) => normal(match[0]));
}

function normal(raw: string): string {
  const bare = raw.replace(/[\u00a0\u202f ]/g, '');
  const grouped = /^[1-9]\d{0,2}(?:[.,]\d{3})+$/.test(bare);
  const plain = grouped ? bare.replace(/[.,]/g, '') : bare.replace(/,(?=\d+$)/, '.').replace(/,/g, '');
  return String(Number.parseFloat(plain));
}
