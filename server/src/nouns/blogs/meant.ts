import type { Failure } from '@grivo/core';
import { languageName } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** Which blog a step publishes to, and what tells another than the one chosen. */
export interface Wanted {
  /** The one chosen. */
  blog: string;
  by: 'that blog' | 'its language' | 'a name';
  /** What the field says that names one. */
  named: string;
  /** Of the article. */
  language: string;
}

const base = (language: string): string => language.split('-')[0]!.toLowerCase();

/**
 * The blog an article goes to: the one chosen, that of its language (the one chosen where it has it), or the one called
 * so, whatever the case of its letters. Archived ones are not meant.
 */
export async function blogFor(
  sql: Sql,
  { blog, by, named, language }: Wanted,
): Promise<{ ok: true; id: string } | { ok: false; failure: Failure }> {
  const said = named.replace(/\s+/g, ' ').trim();
  if (by === 'that blog' || (by === 'a name' && said === '')) return { ok: true, id: blog };
  const rows = await sql.rows<{ id: string; name: string; language: string }>(
    'SELECT id, name, language FROM blog WHERE archived = 0 ORDER BY id <> ?, id',
    [blog],
  );
  const found =
    by === 'a name'
      ? rows.find((row) => row.name.toLowerCase() === said.toLowerCase() || row.id === said)
      : (rows.find((row) => row.language === language) ?? rows.find((row) => base(row.language) === base(language)));
  if (found) return { ok: true, id: found.id };
  return {
    ok: false,
    failure: {
      code: 'no-such-blog',
      by: by === 'a name' ? 'name' : 'language',
      said: by === 'a name' ? said.slice(0, 120) : languageName(language),
    },
  };
}
