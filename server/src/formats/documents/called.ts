/** What a file says of what is in it by its name, as long as nobody has read it. */
export function calledByFile(fileName: string): string {
  const name = fileName
    .replace(/\.\w+$/, '')
    .replace(/[_-]+/g, ' ')
    .trim();
  return name || 'A document';
}

/** What an address says of the page at it, as long as nobody has read it. */
export function calledByAddress(address: string): string {
  const { hostname, pathname } = new URL(address);
  const last =
    pathname
      .split('/')
      .filter((part) => part !== '')
      .at(-1) ?? '';
  let words = last;
  try {
    words = decodeURIComponent(last);
  } catch (error) {
    if (!(error instanceof URIError)) throw error;
  }
  words = words
    .replace(/\.(?:html?|php|aspx?|pdf|docx|md|txt)$/i, '')
    .replace(/[-_+]+/g, ' ')
    .trim();
  return words === '' ? hostname : words.charAt(0).toUpperCase() + words.slice(1);
}

/** Titles programs give by themselves: the name of a file, of a program, or of nothing. */
const MADE =
  /\.(?:docx?|odt|rtf|pdf|indd|qxd|pages|md|txt|html?)$|^(?:microsoft|untitled|unbenannt|document|dokument|scan|new )/i;
const LONGEST = 200;
const LEAST_WORDS = 2;
const LEAST_LETTERS = 5;
const UNPARTED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Khmer}\p{Script=Lao}ー]+/u;

/**
 * What a document is about by the title it has itself: nothing where that says no more than the name it came with, as the
 * title a program gave it, or a single word over a chapter.
 */
export function calledByItself(title: string): string | null {
  const even = title.replace(/\s+/g, ' ').trim();
  const words = even.split(' ').filter((word) => /\p{L}{2}/u.test(word)).length;
  // Where words are not parted by spaces, a few letters say as much.
  const isSaid = words >= LEAST_WORDS || (UNPARTED.exec(even)?.[0].length ?? 0) >= LEAST_LETTERS;
  return !isSaid || even.length > LONGEST || MADE.test(even) ? null : even;
}
