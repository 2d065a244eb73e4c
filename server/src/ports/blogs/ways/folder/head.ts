import { FOLDER_AS_MADE, type FolderSettings, type HeadLine } from '@grivo/contract';
import { stringify as toml } from 'smol-toml';
import { stringify as yaml } from 'yaml';
import type { Post } from '../../blog.ts';

/** What a post says at its head, by our names; what it does not have is left out. */
export type HeadValue = string | boolean | Date | string[] | Record<string, string>;
export type HeadValues = Partial<Record<HeadLine, HeadValue>>;

/** What stands at the head of a file. */
export function headOf(post: Post, { draft, date }: { draft: boolean; date: string | null }): HeadValues {
  return {
    title: post.name,
    ...(post.summary === '' ? {} : { description: post.summary }),
    ...(date === null ? {} : { date: new Date(date) }),
    ...(draft ? { draft: true } : {}),
    ...(post.author === null ? {} : { author: post.author }),
    ...(post.categories.length === 0 ? {} : { categories: post.categories }),
    ...(post.photo ? { picture: post.photo.address, pictureText: post.photo.alternative } : {}),
    language: post.language,
    ...(post.replies === null ? {} : { replies: post.replies }),
    ...(post.canonical === null ? {} : { canonical: post.canonical }),
    ...(post.siblings.length === 0
      ? {}
      : { siblings: Object.fromEntries(post.siblings.map(({ language, address }) => [language, address])) }),
    key: post.key,
  };
}

/** A Markdown file with its head, between the lines each form is known by (`---`, `+++`, or as an object of JSON). */
export function markdownFile(
  values: HeadValues,
  markdown: string,
  { head, names }: Pick<FolderSettings, 'head' | 'names'>,
  own: Readonly<Record<string, string>> = {},
): string {
  // What every post says stands after what this one says besides, and over it.
  const named: Record<string, HeadValue> = { ...own };
  for (const [line, value] of Object.entries(values)) {
    const name = names[line as HeadLine] ?? FOLDER_AS_MADE.names[line as HeadLine] ?? '';
    if (name !== '') named[name] = value;
  }
  const body = `${markdown.trimEnd()}\n`;
  switch (head) {
    case 'YAML':
      return `---\n${yaml(plainDates(named), { lineWidth: 0 })}---\n\n${body}`;
    case 'TOML':
      return `+++\n${toml(named).trimEnd()}\n+++\n\n${body}`;
    case 'JSON':
      return `${JSON.stringify(plainDates(named), null, 2)}\n\n${body}`;
  }
}

/** Moments as text in ISO 8601, which both forms read as what it is. */
function plainDates(values: Record<string, HeadValue>) {
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [name, value instanceof Date ? value.toISOString() : value]),
  );
}

/** The text of a Markdown file without its head. */
export function bodyOf(file: string): string {
  for (const line of ['---', '+++']) {
    if (!file.startsWith(`${line}\n`)) continue;
    const end = file.indexOf(`\n${line}\n`, line.length);
    if (end >= 0) return file.slice(end + line.length + 2).trim();
  }
  // An object of JSON ends where a line of its own closes it.
  const end = file.startsWith('{') ? file.indexOf('\n}\n') : -1;
  return (end < 0 ? file : file.slice(end + 3)).trim();
}
