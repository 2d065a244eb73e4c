import { type ArticleDocument, allSteps, linksOf, type MeasuredBeside, type ProcedureDocument } from '@grivo/core';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';
import { procedureOfBrief } from '../routines/versions.ts';
import { ownAlike } from './ownWords.ts';

/** What an article is measured against beside its sources: articles of ours that say the same, and where links lead. */
export async function besideOf(
  sql: Sql,
  article: { id: string; brief: string },
  document: ArticleDocument,
): Promise<MeasuredBeside> {
  const [own, procedure, dead] = await Promise.all([
    ownAlike(sql, article, document),
    procedureOfBrief(sql, article.brief),
    deadOf(sql, document),
  ]);
  return { own: own.map(({ title, text }) => ({ title, text })), most: mostOf(procedure), dead };
}

/** Most likeness a procedure lets pass: what its last check that looks says. */
function mostOf(procedure: ProcedureDocument | null): MeasuredBeside['most'] {
  const checks = allSteps(procedure?.steps ?? []).flatMap((step) => (step.kind === 'check' && !step.off ? [step] : []));
  return {
    sources: checks.findLast(({ likeness }) => likeness !== null)?.likeness ?? null,
    own: checks.findLast(({ own }) => own !== null)?.own ?? null,
  };
}

/** Addresses an article links to that led nowhere when they were last looked at. */
async function deadOf(sql: Sql, { body }: ArticleDocument): Promise<string[]> {
  const addresses = [
    ...new Set(
      body.flatMap((block) => linksOf(block).flatMap((link) => (link.to === 'address' ? [link.address] : []))),
    ),
  ];
  if (addresses.length === 0) return [];
  const rows = await sql.rows<{ address: string }>(
    "SELECT address FROM link_look WHERE address_digest IN (?) AND state = 'dead'",
    [addresses.map(sha)],
  );
  return rows.map(({ address }) => address);
}
