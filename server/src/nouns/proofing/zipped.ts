import type { ZIP_FORMS } from '@grivo/contract';
import { slugOf } from '@grivo/core';
import { COPIES, copyOf } from '../../formats/copies/copy.ts';
import { fileAbout, fileOrNone } from '../../ground/files/repository.ts';
import type { Database } from '../../ground/store/database.ts';
import { filesShown } from '../articles/charts.ts';
import { getArticle, readRevision } from '../articles/repository.ts';
import { resolverFor } from '../articles/resolver.ts';

const LONGEST_NAME = 80;

/** Forms that hold their pictures themselves. */
const WHOLE: ReadonlySet<string> = new Set(['Word', 'PDF', 'plain text']);

/**
 * Articles as files of one form, with the pictures they show beside them where the form does not hold them; each article is
 * read when it is asked for. What cannot be made in that form is a text that says why.
 */
export async function* zippedFiles(
  db: Database,
  ids: readonly string[],
  as: (typeof ZIP_FORMS)[number],
): AsyncGenerator<{ name: string; body: Buffer }> {
  const names = new Set<string>();
  const pictures = new Set<string>();
  const free = (base: string, ending: string) => {
    for (let n = 1; ; n++) {
      const name = `${base}${n === 1 ? '' : `-${n}`}.${ending}`;
      if (names.has(name)) continue;
      names.add(name);
      return name;
    }
  };
  for (const id of ids) {
    const article = await getArticle(db, id);
    if (!article?.current) continue;
    const document = await readRevision(db, article.current);
    const base = document.slug || slugOf(document.title, LONGEST_NAME) || id;
    const beside = new Map<string, string>();
    for (const digest of WHOLE.has(as) ? [] : await filesShown(db, document)) {
      const about = await fileAbout(db, digest);
      if (about) beside.set(digest, `pictures/${digest.slice(0, 16)}.${endingOf(about.mime)}`);
    }
    const copied = await copyOf(
      as,
      document,
      await resolverFor(db, document, (digest) => beside.get(digest) ?? ''),
      (digest) => fileOrNone(db, digest),
    );
    yield copied.ok
      ? { name: free(base, COPIES[as].ending), body: copied.body }
      : { name: free(`${base}-not-made`, 'txt'), body: Buffer.from(`${document.title}\n\n${copied.problem}\n`) };
    for (const [digest, name] of beside) {
      if (pictures.has(name)) continue;
      pictures.add(name);
      const body = await fileOrNone(db, digest);
      if (body) yield { name, body };
    }
  }
}

const endingOf = (mime: string): string =>
  mime === 'image/jpeg' ? 'jpg' : (/^image\/([a-z]+)/.exec(mime)?.[1] ?? 'bin');
