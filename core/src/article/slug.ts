const LETTERS: Record<string, string> = {
  ä: 'ae',
  ö: 'oe',
  ü: 'ue',
  ß: 'ss',
  æ: 'ae',
  ø: 'o',
  å: 'a',
  ł: 'l',
  đ: 'd',
  þ: 'th',
};

/**
 * The last part of an article's address: lower-case ASCII words joined by hyphens, cut at a word's end.
 * @param most characters allowed
 */
export function slugOf(title: string, most = 60): string {
  const plain = title
    .toLowerCase()
    .replace(/[äöüßæøåłđþ]/g, (letter) => LETTERS[letter] ?? '')
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/[’']/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  if (plain.length <= most) return plain || 'article';
  const cut = plain.slice(0, most + 1);
  const end = cut.lastIndexOf('-');
  return (end > most / 2 ? cut.slice(0, end) : plain.slice(0, most)).replace(/-$/, '');
}

/** Anchors for headings, unique within one article. */
export function makeAnchors(): (heading: string) => string {
  const used = new Map<string, number>();
  return (heading) => {
    const base = slugOf(heading, 48);
    const count = (used.get(base) ?? 0) + 1;
    used.set(base, count);
    return count === 1 ? base : `${base}-${count}`;
  };
}
