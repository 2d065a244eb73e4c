import type { Ground } from '../../ground/ground.ts';
import type { Write } from '../../ground/store/write.ts';

/** Looks of pipelines that are on and follow what goes out on a blog. */
const FOLLOWING = `SELECT DISTINCT s.id FROM source o
  JOIN pipeline p ON p.is_on = 1 AND p.archived = 0
  JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version
  JOIN schedule s ON s.kind = 'look' AND s.ref = p.id
  WHERE o.kind = 'publications' AND o.archived = 0
    AND JSON_CONTAINS(JSON_EXTRACT(v.document, '$.steps[0].sources'), JSON_QUOTE(o.id))
    AND (JSON_LENGTH(o.settings, '$.blogs') = 0 OR JSON_CONTAINS(JSON_EXTRACT(o.settings, '$.blogs'), JSON_QUOTE(?)))`;

/** What follows a publication looks as soon as it is out, and not only when its next look is due. */
export async function wakesFollowers({ db, desk }: Ground, blog: string): Promise<Write[]> {
  const following = await db.rows<{ id: string }>(FOLLOWING, [blog]);
  return following.length === 0
    ? []
    : [
        {
          text: 'UPDATE schedule SET due_desk = LEAST(due_desk, ?) WHERE id IN (?)',
          parameters: [desk.now(), following.map(({ id }) => id)],
        },
      ];
}
