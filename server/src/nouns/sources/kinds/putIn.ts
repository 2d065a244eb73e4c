import type { SourceReader } from '../kind.ts';

/** Holds only what people or programs put into it: there is nothing to look at. */
export const putIn: SourceReader<'requests'> & SourceReader<'hook'> = {
  look: async () => ({ ok: true, entries: (async function* () {})(), ended: { whole: false, partly: null } }),
};
