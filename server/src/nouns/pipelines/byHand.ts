import { type ProcedureDocument, stepKinds } from '@grivo/core';
import { Procedures } from '../../engine/briefState.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { takeChosen } from '../sources/look.ts';
import { putRequest } from '../sources/putIn.ts';
import { createSource } from '../sources/repository.ts';
import { createPipeline } from './repository.ts';

export interface OwnWords {
  blog: { id: string; name: string; language: string };
  title: string;
  /** Markdown. */
  text: string;
  person: { id: string; name: string };
}

/**
 * Makes an article of what somebody wrote: it is laid out as it stands and held for them, with measures, slot and publication
 * as any other. What is written by hand for a blog goes by a pipeline of its own, which can be given more steps.
 * @returns the brief
 */
export async function writeByHand(ground: Ground, { blog, title, text, person }: OwnWords): Promise<string> {
  const { pipeline, source } = (await existing(ground.db, blog)) ?? (await made(ground, blog, person.id));
  const item = await putRequest(ground, source, { subject: title, notes: text, link: null }, person.name);
  const taken = await ground.db.transaction((sql) => takeChosen(sql, ground, new Procedures(), pipeline, [[item]]));
  return taken.briefs[0]!;
}

interface Way {
  pipeline: string;
  source: string;
}

const nameFor = (blog: string) => `Written by hand for ${blog}`.slice(0, 120);

async function existing(sql: Sql, blog: OwnWords['blog']): Promise<Way | null> {
  const [row] = await sql.rows<{ id: string; document: ProcedureDocument }>(
    `SELECT p.id, v.document FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version
     WHERE p.name = ? AND p.archived = 0`,
    [nameFor(blog.name)],
  );
  const [take] = row?.document.steps ?? [];
  const source = take?.kind === 'take' ? take.sources[0] : undefined;
  return row && source ? { pipeline: row.id, source } : null;
}

async function made(ground: Ground, blog: OwnWords['blog'], person: string): Promise<Way> {
  const name = nameFor(blog.name);
  const source = await createSource(ground, { kind: 'requests' }, name);
  const k = stepKinds;
  const document: ProcedureDocument = {
    grivo: 1,
    language: blog.language,
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null, everyMinutes: null },
      { ...k['lay out'].fresh('s2'), body: '{{ text }}', title: '{{ subject }}', reads: 'Markdown' },
      { ...k.hold.fresh('s3'), for: 'me', note: 'Written by hand: pass it once it is ready' },
      { ...k.publish.fresh('s4'), blog: blog.id, when: 'next free slot', as: 'live' },
    ],
  };
  return { pipeline: await createPipeline(ground, { name, document, person }), source };
}
