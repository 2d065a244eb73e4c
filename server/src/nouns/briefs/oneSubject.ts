import { allSteps, ProcedureDocument } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';

/** Something else of ours on a subject: the brief, and its article with its title where it has one. */
export interface OnSubject {
  brief: string;
  pipeline: string;
  subject: string;
  article: string | null;
  title: string | null;
}

/** Others on a subject that are looked at: more come only where nobody ever minded. */
const MOST = 50;

/**
 * What else of ours is on a brief's subject, however it is put, for a blog this one is for too: made before it, or further
 * on its way. What was set aside or taken back does not count, nor do trials. Of two briefs that ask at the same moment
 * only the one made later is told of the other.
 * @param document what the brief is made by
 */
export async function onSameSubject(
  sql: Sql,
  { id, pipeline }: { id: string; pipeline: string },
  document: ProcedureDocument,
): Promise<OnSubject | null> {
  const rows = await sql.rows<{ id: string; subject: string; pipeline: string; document: unknown }>(
    `SELECT o.id, o.subject, o.pipeline, v.document FROM brief b JOIN brief o ON o.subject_sign = b.subject_sign AND o.id <> b.id
     JOIN brief_pin p ON p.brief = o.id AND p.main = 1 JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version
     WHERE b.id = ? AND b.trial = 0 AND o.trial = 0 AND o.standing <> 'set aside' AND (o.id < b.id OR o.standing IN ('ready', 'out'))
       AND (NOT EXISTS (SELECT 1 FROM article a WHERE a.brief = o.id)
         OR EXISTS (SELECT 1 FROM article a WHERE a.brief = o.id AND a.standing NOT IN ('withdrawn', 'set aside')))
     ORDER BY o.id LIMIT ${MOST}`,
    [id],
  );
  const mine = blogsOf(document);
  for (const row of rows) {
    const other = ProcedureDocument.safeParse(row.document).data;
    if (!other || other.language !== document.language) continue;
    const blogs = blogsOf(other);
    // What goes to no blog at all goes where its pipeline puts it.
    if (mine.size + blogs.size === 0 ? row.pipeline !== pipeline : ![...mine].some((blog) => blogs.has(blog))) continue;
    const [article] = await sql.rows<{ id: string; title: string }>(
      "SELECT id, title FROM article WHERE brief = ? AND title <> '' ORDER BY id LIMIT 1",
      [row.id],
    );
    return {
      brief: row.id,
      pipeline: row.pipeline,
      subject: row.subject,
      article: article?.id ?? null,
      title: article?.title ?? null,
    };
  }
  return null;
}

/** The blogs a procedure is known to publish to; one that each article names itself is not known. */
function blogsOf({ steps }: ProcedureDocument): ReadonlySet<string> {
  const publishing = allSteps(steps).flatMap((step) => (step.kind === 'publish' && !step.off ? [step] : []));
  return new Set(publishing.flatMap(({ by, blog }) => (by === 'a name' ? [] : [blog])));
}
