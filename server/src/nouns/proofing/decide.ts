import { LOOKED_OVER } from '@grivo/contract';
import type { Procedures } from '../../engine/briefState.ts';
import type { ServiceFor } from '../../engine/lane.ts';
import type { Tools } from '../../ports/tools.ts';
import type { ArticleRow } from '../articles/repository.ts';
import { type Decision, decide, type Held, heldRuns } from '../briefs/holds.ts';
import { setAside } from '../briefs/rounds.ts';

/** What was done to one of several, or why it was left as it is. */
export type DoneToOne = { done: true; lanes?: ReadonlySet<string> } | { done: false; why: string };

const left = (why: string): DoneToOne => ({ done: false, why });

/** The step that waits for a word on an article: the one that proposes it, else one of its line. */
export function holdOf(holds: readonly Held[], { id, line }: Pick<ArticleRow, 'id' | 'line'>): Held | null {
  const proposes = ({ proposed }: Held) => (proposed?.['article'] as { id?: string } | undefined)?.id === id;
  return holds.find(proposes) ?? holds.find(({ path }) => line === '' || path.startsWith(`${line}/`)) ?? null;
}

/**
 * A person's word on an article among several. Set aside, an article that nobody is asked about ends as well, unless readers
 * see it already.
 */
export async function decideOn(
  ports: Pick<Tools, 'ground' | 'reader'>,
  procedures: Procedures,
  serviceFor: ServiceFor,
  article: ArticleRow,
  { decision, person }: { decision: Decision; person: string },
): Promise<DoneToOne> {
  const { db } = ports.ground;
  const hold = holdOf(await heldRuns(db, article.brief), article);
  if (hold) {
    if (!LOOKED_OVER.includes(hold.kind))
      return left(`It waits for more than a look: open it and answer what ‘${hold.kind}’ asks.`);
    const decided = await decide(
      ports,
      procedures,
      { brief: article.brief, run: hold.run, person, decision },
      serviceFor,
    );
    switch (decided.kind) {
      case 'decided':
        return { done: true, lanes: decided.lanes };
      case 'gone':
        return left('Somebody else decided on it meanwhile.');
      case 'wrong':
        return left(`‘${decided.place}’: ${decided.problem}.`);
    }
  }
  if (decision.decide !== 'set aside') return left('It does not wait for anybody’s word.');
  if (article.standing === 'out' || article.standing === 'draft')
    return left('It is on a blog. Take it back from there first.');
  return (await setAside(ports.ground, article.brief)) ? { done: true } : left('It has ended already.');
}
