import { Liquid } from 'liquidjs';

export type FilledTemplate = { ok: true; text: string } | { ok: false; place: string; problem: string };

const engine = new Liquid({
  strictVariables: true,
  strictFilters: true,
  cache: 500,
  ownPropertyOnly: true,
  parseLimit: 50_000,
  renderLimit: 500,
  memoryLimit: 5_000_000,
});

/**
 * Fills a Liquid text with the declared fields. Unknown fields, filters and broken tags are reported with their place,
 * never filled with nothing.
 */
export function fillTemplate(template: string, fields: Readonly<Record<string, unknown>>): FilledTemplate {
  try {
    return { ok: true, text: String(engine.parseAndRenderSync(template, { ...fields })) };
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    const [problem, place] = error.message.split(/, (?=line:)/);
    return {
      ok: false,
      place: place ?? '',
      problem: `${problem}${/undefined variable/.test(error.message) ? `; there are: ${Object.keys(fields).sort().join(', ')}` : ''}`,
    };
  }
}

export type TemplateFields = { ok: true; fields: string[] } | { ok: false; problem: string };

/** The fields a Liquid text speaks of, without those it makes itself; or what is wrong with its form. */
export function templateFields(template: string): TemplateFields {
  if (!template.includes('{')) return { ok: true, fields: [] };
  try {
    return { ok: true, fields: engine.globalVariablesSync(engine.parse(template)) };
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    return { ok: false, problem: error.message.split('\n')[0]! };
  }
}
