import { asksQuestion, cleanKeywords, type Failure, identityOf, widened } from '@grivo/core';
import { tellChange } from '../../ground/store/event.ts';
import { MOST_PHRASES } from '../../ports/adapters/keywordFigures.ts';
import type { Tools } from '../../ports/tools.ts';
import { fieldsOf, languageOfPhrases } from './keywords.ts';

type Ports = Pick<Tools, 'ground' | 'services' | 'keywordFigures'>;

/** Phrases of a list whose figures are looked up at once; the others are told to be left. */
const MOST_LOOKED_UP = 10_000;

export interface LookedUp {
  /** Phrases the service knows something of. */
  known: number;
  unknown: number;
  /** Phrases that were not asked for, when it failed in the middle or there were too many. */
  left: number;
  failure: Failure | null;
}

/**
 * Looks volume, difficulty and results of a list's phrases up, in calls of two hundred; what was learnt before a call failed
 * stays. Phrases nothing is known of keep what they had.
 */
export async function lookUpFigures(
  ports: Ports,
  source: string,
  country: string | null,
  signal: AbortSignal,
): Promise<LookedUp> {
  const { db, ids } = ports.ground;
  const rows = await db.rows<{ id: string; subject: string }>(
    'SELECT id, subject FROM item WHERE source = ? AND left_out IS NULL ORDER BY id',
    [source],
  );
  const service = ports.services.standard('keyword service');
  if (!service)
    return { known: 0, unknown: 0, left: rows.length, failure: { code: 'no-service', role: 'keyword service' } };
  const language = languageOfPhrases(rows.map(({ subject }) => subject));
  const asked = rows.slice(0, MOST_LOOKED_UP);
  let [known, unknown] = [0, 0];
  for (let at = 0; at < asked.length; at += MOST_PHRASES) {
    const batch = asked.slice(at, at + MOST_PHRASES);
    const measured = await ports.keywordFigures.measure(
      service,
      batch.map(({ subject }) => subject),
      { language, country },
      signal,
    );
    if (!measured.ok) return { known, unknown, left: rows.length - at, failure: measured.failure };
    const byPhrase = new Map(measured.value.map((figures) => [identityOf(figures.phrase), figures]));
    await db.transaction(async (sql) => {
      for (const { id, subject } of batch) {
        const figures = byPhrase.get(identityOf(subject));
        const fields = fieldsOf(figures);
        if (!figures || (Object.keys(fields).length === 0 && figures.results.length === 0)) {
          unknown++;
          continue;
        }
        known++;
        await sql.run('UPDATE item SET fields = JSON_MERGE_PATCH(fields, ?), results = ? WHERE id = ?', [
          JSON.stringify(fields),
          JSON.stringify(figures.results),
          id,
        ]);
      }
      await tellChange(sql, { ids }, 'source', source);
    });
  }
  return { known, unknown, left: rows.length - asked.length, failure: null };
}

export interface WidenedPhrase {
  phrase: string;
  volume: number | null;
  difficulty: number | null;
  question: boolean;
}

/** Phrases and questions around a phrase: those the keyword service knows, else by patterns, of which nothing is known. */
export async function widen(
  ports: Ports,
  seed: string,
  held: readonly string[],
  country: string | null,
  signal: AbortSignal,
): Promise<{ phrases: WidenedPhrase[]; from: 'the service' | 'patterns'; failure: Failure | null }> {
  const language = languageOfPhrases([...held, seed]);
  // What would be dropped when it is added is not offered.
  const fresh = <P extends { phrase: string }>(phrases: readonly P[]) =>
    cleanKeywords(
      phrases.map(({ phrase }) => phrase),
      held,
    )
      .kept.filter(({ identity }) => identity !== identityOf(seed))
      .map(({ line }) => phrases[line - 1]!);
  const service = ports.services.standard('keyword service');
  const related = service
    ? await ports.keywordFigures.related(service, seed, { language, country }, signal)
    : { ok: true as const, value: [] };
  if (related.ok && related.value.length > 0)
    return {
      phrases: fresh(related.value).map(({ phrase, volume, difficulty }) => ({
        phrase,
        volume,
        difficulty,
        question: asksQuestion(phrase, language),
      })),
      from: 'the service',
      failure: null,
    };
  return {
    phrases: fresh(widened(seed, language)).map((one) => ({ ...one, volume: null, difficulty: null })),
    from: 'patterns',
    failure: related.ok ? null : related.failure,
  };
}
