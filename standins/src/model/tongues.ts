import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { stemsOf } from '../words/language.ts';
import { type Statement, statements } from './phrasings.ts';

/**
 * What the model can say in further languages: the statements of one page of the material, a line a sentence. Nothing else:
 * it is a stand-in.
 */
export interface Tongue {
  /** A statement as it is said, and what its paragraph speaks of; null where it has no words for it. */
  says: (statement: Statement) => Statement | null;
  /** What a sentence of its own says. */
  understands: (sentence: string) => Statement | null;
  /** A title or a heading. */
  called: (text: string) => string | null;
  /** A few words, each by itself; what is not known is passed over. */
  words: (text: string) => string[];
  /** What the page is called. */
  title: string;
}

const NAMES: Readonly<Record<string, string>> = { Swedish: 'sv', Polish: 'pl', Japanese: 'ja', Arabic: 'ar' };

/** The language of this name, where some of it is known. */
export const tongueNamed = (name: string): string | null => NAMES[name] ?? null;

interface Page {
  title: string;
  called: string;
  sections: { heading: string; lines: string[] }[];
  /** Single words, as they stand in lists of what is searched for. */
  words: ReadonlyMap<string, string>;
}

function read(file: string): Page {
  const [head = '', ...sections] = readFileSync(join(import.meta.dirname, 'tongues', file), 'utf8')
    .trim()
    .split(/^## /m);
  const [title = '', called = ''] = head.trim().replace(/^# /, '').split(' | ');
  const all = sections.map((section) => {
    const [heading = '', ...lines] = section.trim().split('\n');
    return { heading, lines };
  });
  const words = all
    .filter(({ heading }) => heading === '=')
    .flatMap(({ lines }) => lines.map((line) => line.split('|')));
  return {
    title,
    called,
    sections: all.filter(({ heading }) => heading !== '='),
    words: new Map(words.map(([word = '', said = '']) => [stemsOf(word)[0] ?? word, said])),
  };
}

const bare = (text: string): string =>
  text
    .replace(/<\/?\d+>/g, '')
    .replace(/\s+/g, ' ')
    .trim();

function tongueOf(file: string): Tongue {
  const page = read(file);
  const own = statements().filter(({ page: title }) => title === page.title);
  const headings = [...new Set(own.map(({ heading }) => heading))];
  const lines = page.sections.flatMap(({ lines }) => lines);
  if (own.length !== lines.length || headings.length !== page.sections.length)
    throw new Error(
      `${file}: ${lines.length} sentences for ${own.length}, ${page.sections.length} sections for ${headings.length}`,
    );
  const called = new Map([[page.title.toLowerCase(), page.called]]);
  for (const [i, heading] of headings.entries()) called.set(heading.toLowerCase(), page.sections[i]!.heading);
  const said = new Map<number, Statement>();
  const understood = new Map<string, Statement>();
  for (const [i, statement] of own.entries()) {
    const text = lines[i]!;
    const theirs = { ...statement, text, heading: called.get(statement.heading.toLowerCase())! };
    said.set(statement.id, theirs);
    understood.set(text, theirs);
  }
  return {
    says: ({ id }) => said.get(id) ?? null,
    understands: (sentence) => understood.get(bare(sentence)) ?? null,
    called: (text) => called.get(bare(text).toLowerCase()) ?? null,
    words: (text) => stemsOf(text).flatMap((stem) => page.words.get(stem) ?? []),
    title: page.called,
  };
}

const tongues = new Map<string, Tongue>();

/** What can be said in a language by its tag; null for those that are not known so. */
export function tongue(language: string): Tongue | null {
  if (tongues.size === 0)
    for (const file of readdirSync(join(import.meta.dirname, 'tongues')))
      tongues.set(file.replace('.txt', ''), tongueOf(file));
  return tongues.get(language) ?? null;
}
