import { type MeasuredPhrase, SourceSettings } from '@grivo/contract';
import { type CleanedKeywords, cleanKeywords, identityOf, languageOf, type Measures } from '@grivo/core';
import type { Ground } from '../engine/outside.ts';
import { fingerprintOf, sha } from './fingerprint.ts';
import { filterAnew } from './leaveOut.ts';

/** A text of phrases, or phrases already parted. */
export type Phrases = { paste: string } | { phrases: readonly MeasuredPhrase[] };

/** The language of a list, by the small words of its phrases. */
export function languageOfPhrases(phrases: readonly string[]): string {
  return languageOf(phrases.slice(0, 2_000).join(' ')) ?? 'en';
}

export type Added = CleanedKeywords & {
  /** Phrases that were there, and whose measures were brought up to date. */
  measured: number;
};

/** A description may be as long as an item's subject. */
const LONGEST_DESCRIPTION = 500;

/** What a paste would come to beside the phrases a list holds. */
export function cleanedOf(given: Phrases, held: readonly string[], settings: SourceSettings): CleanedKeywords {
  const how = settings.kind === 'keywords' ? settings : null;
  const whole = 'paste' in given && how !== null && how.lines !== 'phrases';
  const parted = 'phrases' in given ? given.phrases.map(({ phrase }) => phrase) : null;
  return cleanKeywords(parted ?? (whole ? linesOf(given.paste) : (given as { paste: string }).paste), held, {
    spelling: how === null || how.spelling === 'as typed' ? null : how.spelling,
    ...(how?.lines === 'descriptions' ? { longest: LONGEST_DESCRIPTION } : {}),
  });
}

function linesOf(text: string): string[] {
  return text.split(/\r\n|\r|\n/);
}

/**
 * Cleans a paste and adds what stays to a list; the same paste twice adds nothing twice. Measures of phrases that are there
 * already are brought up to date.
 */
export async function addKeywords(ground: Ground, source: string, given: Phrases): Promise<Added> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ settings: unknown }>('SELECT settings FROM source WHERE id = ? FOR UPDATE', [
      source,
    ]);
    const settings = SourceSettings.parse(row?.settings);
    const held = (await sql.rows<{ subject: string }>('SELECT subject FROM item WHERE source = ?', [source])).map(
      ({ subject }) => subject,
    );
    const cleaned = cleanedOf(given, held, settings);
    const phrases = 'phrases' in given ? given.phrases : [];
    const fresh = cleaned.kept.map(({ phrase, identity, line }) => ({
      phrase,
      identity,
      fields: { ...fieldsOf(phrases[line - 1]), ...bringsAlong(phrase, settings) },
    }));
    const there = new Set(held.map(identityOf));
    const again = cleaned.dropped.flatMap(({ reason, of, line }) => {
      const fields = fieldsOf(phrases[line - 1]);
      if (reason !== 'repeat' || of === undefined || Object.keys(fields).length === 0) return [];
      const identity = identityOf(of);
      return there.has(identity) ? [{ phrase: of, identity, fields }] : [];
    });
    const rows = [...fresh, ...again];
    for (let at = 0; at < rows.length; at += 1_000)
      await sql.run(
        `INSERT INTO item (id, source, identity, content_digest, fingerprint, subject, fields) VALUES ?
         ON DUPLICATE KEY UPDATE fields = JSON_MERGE_PATCH(fields, VALUES(fields))`,
        [
          rows.slice(at, at + 1_000).map(({ phrase, identity, fields }) => {
            const known = sha(identity);
            const print = fingerprintOf(source, known);
            return [ground.ids(), source, known, sha(phrase), print, phrase, JSON.stringify(fields)];
          }),
        ],
      );
    if (cleaned.kept.length > 0 && settings.exclude.length > 0) await filterAnew(sql, source, settings);
    return { ...cleaned, measured: again.length };
  });
}

/** What a line is besides a subject: a title stays the article's title, a description is there to be written from. */
function bringsAlong(line: string, settings: SourceSettings): Record<string, string | boolean> {
  if (settings.kind !== 'keywords' || settings.lines === 'phrases') return {};
  return settings.lines === 'titles' ? { title: line, titleStays: true } : { description: line };
}

/** What was measured, as fields a brief brings along. */
export function fieldsOf(phrase: Measures | undefined): Record<string, number> {
  return {
    ...(typeof phrase?.volume === 'number' ? { volume: phrase.volume } : {}),
    ...(typeof phrase?.difficulty === 'number' ? { difficulty: phrase.difficulty } : {}),
  };
}

/** What is known of a phrase, from its fields. */
export function measuresIn(fields: Readonly<Record<string, unknown>>): Measures {
  const figure = (value: unknown) => (typeof value === 'number' ? value : null);
  return { volume: figure(fields['volume']), difficulty: figure(fields['difficulty']) };
}
