import { createServer, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { articleText, type ProcedureDocument, type Step, stepKinds } from '@grivo/core';
import { readRevision } from '../../src/nouns/articles/repository.ts';
import type { Desk } from './desk.ts';

/** A reply as a service gives it: its text, how it ended, and why it will not. */
export interface WriterReply {
  content: string;
  finish?: string;
  refusal?: string;
}

type Body = Record<string, unknown> & { messages: { content: string }[]; response_format?: object };

/**
 * A model service of one's own behind real HTTP. It plans one section and writes it from these sentences; what else its
 * first texts are is said by a test.
 */
export async function ownWriter(sentences: readonly string[]) {
  /** Replies in the place of its first texts, made of the one that would be right. */
  const instead: ((right: string) => WriterReply)[] = [];
  /** What it was asked, and parts of a request it does not know. */
  const asked: Body[] = [];
  const unknown: string[] = [];
  const right = (prompt: string) => {
    const passages = [...prompt.matchAll(/<<<passage (\d+)/g)].map(([, n]) => Number(n)).slice(0, 3);
    if (prompt.includes('Task: outline'))
      return { sections: [{ heading: 'Weighing the salt', says: 'How to weigh it.', passages }] };
    return { blocks: sentences.map((text) => ({ kind: 'paragraph', text, items: [], passages })) };
  };
  const answer = (body: Body, say: (status: number, said: object) => ServerResponse) => {
    const strange = unknown.find((name) => JSON.stringify(body.response_format ?? '').includes(name));
    if (strange) return say(400, { error: { message: `Unsupported parameter: response_format ${strange}` } });
    asked.push(body);
    const prompt = body.messages.map(({ content }) => content).join('\n');
    const good = JSON.stringify(right(prompt));
    const reply = prompt.includes('Task: outline') ? null : (instead.shift()?.(good) ?? null);
    const { content, finish = 'stop', refusal } = reply ?? { content: good };
    return say(200, {
      choices: [{ message: { role: 'assistant', content, ...(refusal ? { refusal } : {}) }, finish_reason: finish }],
      usage: { prompt_tokens: 10, completion_tokens: 10 },
    });
  };
  const server = createServer((request, response) => {
    let text = '';
    request.on('data', (part: Buffer) => {
      text += part.toString();
    });
    request.on('end', () =>
      answer(JSON.parse(text) as Body, (status, said) =>
        response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(said)),
      ),
    );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    instead,
    asked,
    unknown,
    forget() {
      for (const list of [instead, asked, unknown]) list.length = 0;
    },
    close: () => new Promise((resolve) => server.close(resolve)),
  };
}

/** Connects it to an installation; its id. */
export async function connected(desk: Desk, address: string): Promise<string> {
  desk.w.product.allowed.add(address);
  const owner = await desk.http.as('owner');
  const made = await owner<{ id: string }>('POST', '/services', {
    role: 'writer',
    name: 'Spokes',
    address,
    model: 'spoke-1',
    secret: null,
    price: { microsPerThousandIn: 1_000, microsPerThousandOut: 1_000, microsPerPicture: 0 },
  });
  return made.body.id;
}

let n = 0;

/** Writes one article with a writer; how its brief ended, and the article with its text. */
export async function writtenBy(desk: Desk, service: string, ...then: Step[]) {
  const phrase = `how much salt for sauerkraut ${'abcdefghijklmnopqrstuvwxyz'[n++ % 26]}`;
  const source = await desk.ask<{ id: string }>('POST', '/sources', { name: `${phrase} ${n}` });
  await desk.ask('POST', `/sources/${source.body.id}/keywords`, { paste: phrase });
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    services: { writer: service },
    steps: [
      { ...stepKinds.take.fresh('s1'), sources: [source.body.id], most: null },
      stepKinds['look up'].fresh('s2'),
      { ...stepKinds.outline.fresh('s3'), sections: { from: 1, to: 1 } },
      { ...stepKinds.write.fresh('s4'), words: 200, parts: [] },
      ...then,
    ],
  };
  const made = await desk.ask<{ id: string }>('POST', '/pipelines', { name: `${phrase} ${n}`, document });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
  const ends = ['ready', 'out', 'held', 'stopped', 'set aside'];
  const standing = (await desk.w.settled(briefs, ends)).get(briefs[0]!)!;
  const { db } = desk.w.product.ground;
  const [run] = await db.rows<{ failure: { code: string } | null }>(
    "SELECT failure FROM step_run WHERE brief = ? AND kind = 'write' ORDER BY round DESC LIMIT 1",
    briefs,
  );
  const [article] = await db.rows<{ id: string; current: string | null }>(
    'SELECT id, current FROM article WHERE brief = ?',
    briefs,
  );
  const text = article?.current ? articleText(await readRevision(db, article.current)) : '';
  return { brief: briefs[0]!, standing, text, failure: run?.failure ?? null, article: article?.id ?? null };
}
