import { byHand, withdrawFrom } from './acts.ts';
import type { PublishingPorts } from './post.ts';

const AT_ONCE = 5;

/**
 * Takes back what a blog was asked to keep until a later moment once its article was set aside here: else it would go out
 * by itself. So too where nobody knows whether the blog took it.
 * Some at a time; what a blog does not take back now is tried again.
 */
export async function takeBackDated(ports: PublishingPorts): Promise<void> {
  const { ground } = ports;
  const rows = await ground.db.rows<{ id: string }>(
    `SELECT p.id FROM publication p JOIN article a ON a.id = p.article WHERE p.dating = 1 AND a.aside = 1 AND p.state = 'draft' LIMIT ${AT_ONCE}`,
  );
  for (const { id } of rows) await withdrawFrom(ports, byHand(ground, AbortSignal.timeout(60_000)), id);
}
