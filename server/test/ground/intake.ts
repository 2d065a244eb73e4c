import type { BriefWhole, Item, Looked, SourceWhole } from '@grivo/contract';
import { stepKinds as k, type ProcedureDocument } from '@grivo/core';
import { expect } from 'vitest';
import type { Desk } from './desk.ts';

/** What tests of intake ask of the API, in few words; `desk` is asked only when it is open. */
export function intakeAt(desk: () => Pick<Desk, 'w' | 'ask' | 'http' | 'cookie'>) {
  const ask: Desk['ask'] = (...words) => desk().ask(...words);
  const at = (path: string) => `${desk().w.standIns.address}${path}`;
  const itemsOf = async (source: string) =>
    (await ask<{ items: Item[] }>('GET', `/sources/${source}/items`)).body.items;
  return {
    at,
    itemsOf,
    stock: () => ({ kind: 'sheet', address: at('/sheets/stock.csv') }),
    bench: () => ({ kind: 'videos', channel: at('/videos/@crockhaven-bench') }),
    async sourceOf(settings: object, name = 'A source'): Promise<string> {
      const made = await ask<{ id: string }>('POST', '/sources', { name, settings });
      expect(made.status).toBe(201);
      return made.body.id;
    },
    look: async (source: string) => (await ask<Looked>('POST', `/sources/${source}/look`)).body,
    offered: async (source: string) => (await itemsOf(source)).filter(({ leftOut }) => leftOut === null),
    wholeSource: async (source: string) => (await ask<SourceWhole>('GET', `/sources/${source}`)).body,
    /** Takes what is new and stops at once, so that only taking is looked at. */
    async taker(source: string, most: number | null = null): Promise<string> {
      const document: ProcedureDocument = {
        grivo: 1,
        language: 'en',
        steps: [
          { ...k.take.fresh('s1'), sources: [source], most, everyMinutes: 60 },
          { ...k.wait.fresh('s2'), minutes: 1 },
        ],
      };
      return (await ask<{ id: string }>('POST', '/pipelines', { name: 'Takes', document })).body.id;
    },
    take: async (pipeline: string) =>
      (await ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, {})).body.briefs,
    subjectsOf: async (briefs: string[]) =>
      (
        await Promise.all(briefs.map(async (id) => (await ask<BriefWhole>('GET', `/briefs/${id}`)).body.subject))
      ).sort(),
    /** A source as CSV with what was made of it. */
    writtenBack: (source: string) =>
      fetch(`${desk().http.address}/api/sources/${source}/written-back`, { headers: { cookie: desk().cookie } }),
    /** Sends a file to be kept. */
    upload: (mime: string, body: Uint8Array | string) =>
      fetch(`${desk().http.address}/api/uploads?mime=${mime}`, {
        method: 'POST',
        headers: { cookie: desk().cookie, 'content-type': 'application/octet-stream' },
        body: body as never,
      }),
  };
}
