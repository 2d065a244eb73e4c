import type { CatalogueSettings } from '@grivo/contract';
import { fileAbout, fileChunks } from '../../ground/files/repository.ts';
import type { Ground } from '../../ground/ground.ts';
import { type Put, putAway, takenFrom } from '../../ground/network/spool.ts';
import type { Reach } from '../../ground/reading/reach.ts';
import type { AboutCatalogue, CataloguePart, FoundProduct } from './read.ts';

const MOST_BYTES = 60_000_000;
const TIME_LIMIT_MS = 60_000;

export type OpenedCatalogue =
  | {
      ok: true;
      about: AboutCatalogue;
      /** The products in batches; how the reading ended is told by `trouble` afterwards. */
      found: AsyncGenerator<FoundProduct[]>;
      trouble: () => string | null;
      /** Ends the reading where the products are not wanted. */
      close: () => Promise<void>;
    }
  | { ok: false; problem: string; mend: string };

/** The list itself, from its address or as it was uploaded, put away as a file. */
async function listOf(
  { ground, network }: Pick<Reach, 'network'> & { ground: Pick<Ground, 'db'> },
  settings: CatalogueSettings,
  signal: AbortSignal,
): Promise<{ ok: true; put: Put; mime: string; base: string } | Extract<OpenedCatalogue, { ok: false }>> {
  if (settings.address !== null) {
    const call = {
      method: 'GET' as const,
      address: settings.address,
      timeLimitMs: TIME_LIMIT_MS,
      maxBytes: MOST_BYTES,
      signal,
    };
    const taken = await takenFrom(network, call, putAway);
    if (!taken.ok) return { ...taken, mend: 'Look at the address, or upload the file instead.' };
    return { ok: true, put: taken.value, mime: taken.mime, base: taken.address };
  }
  const file = settings.file === null ? null : await fileAbout(ground.db, settings.file);
  if (!file) return { ok: false, problem: 'there is no list yet', mend: 'Upload one, or give an address.' };
  if (file.bytes > MOST_BYTES)
    return {
      ok: false,
      problem: `it is larger than ${MOST_BYTES / 1_000_000} MB`,
      mend: 'Split it into several lists.',
    };
  return { ok: true, put: await putAway(fileChunks(ground.db, file.digest)), mime: '', base: 'https://none.invalid/' };
}

/** The products of a catalogue, from its address or the file that was uploaded. */
export async function openCatalogue(
  { ground, network, reader }: Reach & { ground: Pick<Ground, 'db'> },
  settings: CatalogueSettings,
  signal: AbortSignal,
): Promise<OpenedCatalogue> {
  const fetched = await listOf({ ground, network }, settings, signal);
  if (!fetched.ok) return fetched;
  const { mime, base } = fetched;
  const { path, size, remove } = fetched.put;
  const parts = reader.parts('products', { path, size, mime, base, settings });
  const unread = (problem: string): OpenedCatalogue => ({
    ok: false,
    problem,
    mend: 'Give a list as CSV, XML or JSON with a product in each row or element.',
  });
  // It has been read whole once anything of it comes.
  const first = await parts.next().finally(remove);
  if (first.done) return unread(first.value.ok ? 'it lists nothing' : first.value.problem);
  if ('problem' in first.value) {
    await parts.return({ ok: true, value: null });
    return unread(first.value.problem);
  }
  let trouble: string | null = null;
  return {
    ok: true,
    about: (first.value as Extract<CataloguePart, { about: unknown }>).about,
    found: (async function* () {
      try {
        for (;;) {
          const next = await parts.next();
          if (!next.done) {
            if ('found' in next.value) yield next.value.found;
          } else {
            if (!next.value.ok) trouble = next.value.problem;
            return;
          }
        }
      } finally {
        await parts.return({ ok: true, value: null });
      }
    })(),
    trouble: () => trouble,
    close: async () => void (await parts.return({ ok: true, value: null })),
  };
}
