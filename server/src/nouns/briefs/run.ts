import type { RunWhole } from '@grivo/contract';
import {
  articleText,
  articleWords,
  expressionFields,
  type Failure,
  fillTemplate,
  kindOf,
  stepIdOf,
  templateFields,
  textOf,
  wordsOf,
} from '@grivo/core';
import { z } from 'zod';
import { fieldsAt, loadBriefs, type Procedures } from '../../engine/briefState.ts';
import type { Fields } from '../../engine/performer.ts';
import type { Sql } from '../../ground/store/database.ts';
import { ArticleField, field, PassagesField } from '../articles/fields.ts';
import { fieldsInTexts } from '../articles/inTexts.ts';
import { readRevision } from '../articles/repository.ts';
import { passagesById } from '../materials/repository.ts';
import type { RunRow } from './list.ts';

const Headings = z.array(z.object({ heading: z.string() }));

/** Texts are shown from their beginning. */
const MOST_TEXT = 1_200;

/** What one step run read, its rounds, and the attempts that did not end it; null when there is no such run. */
export async function runWhole(
  sql: Sql,
  procedures: Procedures,
  run: RunRow,
  nameOf: (service: string) => string,
): Promise<RunWhole | null> {
  const brief = (await loadBriefs(sql, procedures, [run.brief])).get(run.brief);
  if (!brief) return null;
  const step = brief.steps.get(stepIdOf(run.path));
  const fields = fieldsAt(brief, run.path);
  const attempts = await sql.rows<{ n: number; at: Date | null; failure: Failure | null; micros: number }>(
    'SELECT n, ended_at AS at, failure, micros FROM attempt WHERE step_run = ? ORDER BY n',
    [run.id],
  );
  const { brief: _, ...own } = run;
  return {
    run: { ...own, failure: run.failure && wordsOf(run.failure, nameOf) },
    wentIn: await Promise.all(
      [...new Set(step ? namesRead(step) : [])]
        .filter((name) => fields[name] !== undefined && fields[name] !== null)
        .map(async (name) => ({ name, text: (await shown(sql, fields, name)).slice(0, MOST_TEXT) })),
    ),
    rounds: brief.runs
      .filter(({ path }) => path === run.path)
      .map(({ id, round, state }) => ({ id, round, state }))
      .sort((a, b) => a.round - b.round),
    attempts: attempts.map(({ n, at, failure, micros }) => ({
      n,
      at,
      says: failure ? wordsOf(failure, nameOf).sentence : '',
      micros: Number(micros),
    })),
  };
}

/** A text with the fields a step sees in a brief put in, as the step would say it; null when there is no such brief. */
export async function filledFor(
  sql: Sql,
  procedures: Procedures,
  id: string,
  step: string,
  text: string,
): Promise<{ text: string; problem: string | null } | null> {
  const brief = (await loadBriefs(sql, procedures, [id])).get(id);
  if (!brief) return null;
  const path = brief.runs.findLast((run) => stepIdOf(run.path) === step)?.path ?? step;
  const filled = fillTemplate(text, await fieldsInTexts(sql, fieldsAt(brief, path), [text]));
  return filled.ok
    ? { text: filled.text.slice(0, MOST_TEXT * 5), problem: null }
    : { text: '', problem: filled.problem };
}

/** The subject, what the kind needs, and what the step's own texts speak of. */
function namesRead(step: Parameters<typeof kindOf>[0]): string[] {
  const kind = kindOf(step);
  const spoken = (kind.uses?.(step) ?? []).flatMap(({ as, text }) => {
    if (as === 'name') return [text.split('.')[0]!];
    if (as === 'expression') return expressionFields(text);
    const read = templateFields(text);
    return read.ok ? read.fields : [];
  });
  return ['subject', ...kind.needs, ...spoken];
}

/** A field as a text: what it names by id is read. */
async function shown(sql: Sql, fields: Fields, name: string): Promise<string> {
  const article = name === 'article' ? field(fields, 'article', ArticleField) : null;
  if (article) {
    const document = await readRevision(sql, article.revision);
    return `${articleWords(document)} words: ${articleText(document)}`;
  }
  const ids = name === 'passages' ? field(fields, 'passages', PassagesField) : null;
  if (ids) {
    const passages = await passagesById(sql, ids);
    return `${passages.length} passages: ${passages.map(({ text }) => text).join(' · ')}`;
  }
  const outline = name === 'outline' ? Headings.safeParse(fields['outline']) : null;
  if (outline?.success) return outline.data.map(({ heading }) => heading).join(' · ');
  return textOf(fields[name]);
}
