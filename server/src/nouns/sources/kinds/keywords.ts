import { identityOf } from '@grivo/core';
import { cleanedOf, fieldsOf, heldPhrases, languageOfPhrases } from '../keywords.ts';
import type { Found, SourceReader } from '../kind.ts';

/** A list that watches a site: phrases the site is found for, as far as the list does not hold them or near ones. */
export const keywords: SourceReader<'keywords'> = {
  async look(ports, source, signal) {
    const { site, country } = source.settings;
    const service = ports.services.standard('keyword service');
    if (!service) return { ok: false, failure: { code: 'no-service', role: 'keyword service' } };
    const held = await heldPhrases(ports.ground.db, source.id);
    const searching = { language: languageOfPhrases(held.held), country };
    const asked = await ports.keywordFigures.site(service, site!, searching, signal);
    if (!asked.ok) return asked;
    const read = await cleanedOf(ports.reader, { phrases: asked.value }, held, source.settings);
    if (!read.ok)
      return {
        ok: false,
        failure: { code: 'source-unreadable', source: source.id, reason: read.problem, mend: 'Try again in a while.' },
      };
    const { kept } = read.cleaned;
    const found = kept.map(({ phrase, line }): Found => {
      const figures = asked.value[line - 1];
      return {
        identity: identityOf(phrase),
        subject: phrase,
        content: '',
        fields: () => fieldsOf(figures),
        publishedDesk: null,
        leftOut: null,
      };
    });
    return { ok: true, entries: inOne(found), ended: { whole: false, partly: null } };
  },
};

async function* inOne(found: Found[]): AsyncGenerator<Found[]> {
  yield found;
}
