import type { Failure } from '@grivo/core';
import { openCatalogue } from '../../../formats/catalogue/open.ts';
import { MOST_RECORDS } from '../../../formats/catalogue/records.ts';
import type { Ended, Found, SourceReader } from '../kind.ts';

/** Products of a partner's list, those that pass in the order asked for, the others with what speaks against them. */
export const catalogue: SourceReader<'catalogue'> = {
  async look(ports, source, signal) {
    const opened = await openCatalogue(ports, source.settings, signal);
    const unreadable = (reason: string, mend: string): Failure => ({
      code: 'source-unreadable',
      source: source.id,
      reason,
      mend,
    });
    if (!opened.ok) return { ok: false, failure: unreadable(opened.problem, opened.mend) };
    const { about } = opened;
    const ended: Ended = {
      whole: !about.isCut,
      partly: about.isCut
        ? unreadable(
            `only its first ${MOST_RECORDS.toLocaleString('en-GB')} products are read`,
            'Split it into several lists.',
          )
        : null,
    };
    return {
      ok: true,
      ended,
      ...(source.settings.columns === null ? { settings: { ...source.settings, columns: about.columns } } : {}),
      entries: (async function* (): AsyncGenerator<Found[]> {
        for await (const batch of opened.found)
          yield batch.map(({ fields, ...one }) => ({ ...one, fields: () => fields, publishedDesk: null }));
        const trouble = opened.trouble();
        if (trouble === null) return;
        ended.whole = false;
        ended.partly = unreadable(trouble, 'Split it into several lists.');
      })(),
    };
  },
};
