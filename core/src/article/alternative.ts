import { visibleText } from '../passage/visible.ts';
import { fold } from '../sentence/sentence.ts';

/** Letters a screen reader reads without pause for breath; what is longer belongs into the caption. */
export const LONGEST_ALTERNATIVE = 140;
const LEAST_WORDS = 3;
/** Letters of what a maker says that are looked at. */
const MOST_READ = 2_000;

/** 'A picture of …': whoever hears it knows that it is a picture. */
const NEEDLESS =
  /^(?:(?:an?|the|this)\s+)?(?:[\p{L}-]+\s+){0,2}(?:picture|image|photo(?:graph)?|illustration|drawing)\s+(?:of|showing|that shows|depicting)\s+|^(?:(?:ein|eine|das|die)\s+)?(?:[\p{L}-]+\s+){0,2}(?:Bild|Foto|Zeichnung|Illustration|Abbildung)\s+(?:von|mit|die|das|eines|einer)\s+/iu;

/**
 * What a picture shows, in words for whoever does not see it, from what its maker says of it: one line, without 'a picture
 * of', ended where a part of the sentence ends.
 * @param shows what the maker says; text of others
 * @param title of the article: said again it tells nothing
 * @returns null where that says too little
 */
export function alternativeFrom(shows: string | null, title: string): string | null {
  if (shows === null) return null;
  const line = visibleText(shows.slice(0, MOST_READ)).replace(/\s+/g, ' ').trim().replace(NEEDLESS, '');
  const whole = line.length <= LONGEST_ALTERNATIVE ? line : cut(line);
  const text = whole.charAt(0).toUpperCase() + whole.slice(1);
  if (text.split(' ').length < LEAST_WORDS) return null;
  return fold(text).replace(/[.!]$/, '') === fold(title) ? null : text;
}

/** The longest beginning that ends with a sentence or a part of one; else at a word. */
function cut(line: string): string {
  const room = line.slice(0, LONGEST_ALTERNATIVE);
  for (const ends of [/^(.{12,}[.!?])(?= )/su, /^(.{20,})[,;:](?= )/su, /^(.{20,}) /su]) {
    const found = ends.exec(room)?.[1];
    if (found) return found;
  }
  return room;
}

/**
 * An alternative text that another picture has already, told apart by what this one was made for: who hears both knows
 * that they are two.
 */
export function alternativeApart(alternative: string, subject: string, language: string): string {
  const about = visibleText(subject).replace(/\s+/g, ' ').trim();
  const end = language.startsWith('de') ? `; zu „${about}“` : `; for “${about}”`;
  const room = LONGEST_ALTERNATIVE - end.length;
  const said = alternative.replace(/[.!]$/, '');
  return room < 40 ? alternative : `${said.length <= room ? said : cut(said.slice(0, room))}${end}`;
}

/** What can be said of a picture nobody described: what it was made for. */
export function alternativeFor(title: string, language: string): string {
  return language === 'de' ? `Zeichnung zu „${title}“` : `Drawing made for “${title}”`;
}
