import type { Sql } from './database.ts';
import type { Write } from './write.ts';

/** What a hint of a change is about. */
export type Noun =
  | 'article'
  | 'blog'
  | 'brief'
  | 'pipeline'
  | 'routine'
  | 'service'
  | 'session'
  | 'source'
  | 'label'
  | 'destination'
  | 'style'
  | 'presence';

/** A hint that something changed, for everybody who has it on the screen: they read it again. */
export function changeWrite(ids: () => string, noun: Noun, id: string): Write {
  return { text: 'INSERT INTO event (id, noun, noun_id) VALUES (?, ?, ?)', parameters: [ids(), noun, id] };
}

export async function tellChange(sql: Sql, { ids }: { ids: () => string }, noun: Noun, id: string): Promise<void> {
  const { text, parameters } = changeWrite(ids, noun, id);
  await sql.run(text, parameters);
}
