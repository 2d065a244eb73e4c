import { Liquid } from 'liquidjs';
import { given, withoutSigns } from './given.ts';
import { asDay, asNumber } from './localised.ts';

export type FilledTemplate = { ok: true; text: string } | { ok: false; place: string; problem: string };

/**
 * Tags a text may use: those that choose, repeat and set within the text itself. What reads other templates (include,
 * render, layout, block) is none of them.
 */
export const TEMPLATE_TAGS: readonly string[] = [
  ...['assign', 'capture', 'echo', 'liquid', 'raw', 'comment', '#'],
  ...['if', 'unless', 'case', 'for', 'break', 'continue', 'cycle', 'tablerow', 'increment', 'decrement'],
];

/** Filters a text may use: all that compute from their values alone. */
export const TEMPLATE_FILTERS: readonly string[] = [
  ...['escape', 'xml_escape', 'escape_once', 'newline_to_br', 'strip_html', 'url_decode', 'url_encode'],
  ...['cgi_escape', 'uri_escape', 'slugify', 'append', 'prepend', 'lstrip', 'rstrip', 'strip', 'downcase', 'upcase'],
  ...['capitalize', 'remove', 'remove_first', 'remove_last', 'replace', 'replace_first', 'replace_last', 'truncate'],
  ...['truncatewords', 'strip_newlines', 'squish', 'normalize_whitespace', 'number_of_words', 'split', 'join'],
  ...['array_to_sentence_string', 'first', 'last', 'reverse', 'sort', 'sort_natural', 'size', 'map', 'sum', 'compact'],
  ...['concat', 'push', 'unshift', 'pop', 'shift', 'slice', 'where', 'reject', 'where_exp', 'reject_exp'],
  ...['group_by', 'group_by_exp', 'has', 'has_exp', 'find_index', 'find_index_exp', 'find', 'find_exp', 'uniq'],
  ...['abs', 'at_least', 'at_most', 'ceil', 'divided_by', 'floor', 'minus', 'plus', 'modulo', 'times', 'round'],
  ...['date', 'date_to_xmlschema', 'date_to_rfc822', 'date_to_string', 'date_to_long_string', 'default', 'json'],
  ...['as_number', 'as_day'],
];

/** What templates are read from: nothing at all. */
const NO_FILES = {
  readFileSync(): string {
    throw new Error('a text reads no other text');
  },
  async readFile(): Promise<string> {
    throw new Error('a text reads no other text');
  },
  existsSync: () => false,
  exists: async () => false,
  containsSync: () => false,
  contains: async () => false,
  resolve: (_root: string, name: string) => name,
};

function engineOf(around?: (value: unknown) => string): Liquid {
  const engine = new Liquid({
    strictVariables: true,
    strictFilters: true,
    cache: 500,
    ownPropertyOnly: true,
    parseLimit: 50_000,
    renderLimit: 500,
    memoryLimit: 5_000_000,
    fs: NO_FILES,
    relativeReference: false,
    ...(around ? { outputEscape: around } : {}),
  });
  for (const [name, write] of Object.entries({ as_number: asNumber, as_day: asDay }))
    engine.registerFilter(name, function (value: unknown, language?: unknown) {
      // In the language of what it is filled for, where none is named.
      const { language: own } = this.context.environments as { language?: unknown };
      return write(value, language ?? own ?? 'en');
    });
  // Only what is listed is there: what a later version of the library brings along is not.
  for (const name of Object.keys(engine.tags)) if (!TEMPLATE_TAGS.includes(name)) delete engine.tags[name];
  for (const name of Object.keys(engine.filters)) if (!TEMPLATE_FILTERS.includes(name)) delete engine.filters[name];
  return engine;
}

function written(value: unknown): string {
  if (Array.isArray(value)) return value.map(written).join('');
  return value === null || value === undefined ? '' : String(value);
}

const engine = engineOf();
const marking = engineOf((value) => written(value).replace(/[&<>"'`]/g, (sign) => `&#${sign.charCodeAt(0)};`));
const telling = engineOf((value) => given('given', written(value)));

/** Letters a filled text may have. */
const LONGEST = 1_000_000;

/**
 * Fills a Liquid text with the declared fields. Unknown fields, filters and broken tags are reported with their place,
 * never filled with nothing.
 */
export function fillTemplate(template: string, fields: Readonly<Record<string, unknown>>): FilledTemplate {
  return fill(engine, template, fields);
}

/** As {@link fillTemplate}, for markup: what is put in is shown and never run, wherever it stands. */
export function fillMarkup(template: string, fields: Readonly<Record<string, unknown>>): FilledTemplate {
  return fill(marking, template, fields);
}

/** As {@link fillTemplate}, every value put in told apart from the words around it as {@link given}. */
export function fillInstruction(template: string, fields: Readonly<Record<string, unknown>>): FilledTemplate {
  return fill(telling, withoutSigns(template), fields);
}

function fill(by: Liquid, template: string, fields: Readonly<Record<string, unknown>>): FilledTemplate {
  try {
    const text = String(by.parseAndRenderSync(template, { ...fields }));
    if (text.length > LONGEST)
      return { ok: false, place: '', problem: `the filled text is longer than ${LONGEST / 1_000_000} million letters` };
    return { ok: true, text };
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    const [problem, place] = error.message.split('\n')[0]!.split(/, (?=line:)/);
    return {
      ok: false,
      place: place ?? '',
      problem: `${problem}${/undefined variable/.test(error.message) ? `; there are: ${Object.keys(fields).sort().join(', ')}` : ''}`,
    };
  }
}

export type TemplateFields =
  | { ok: true; fields: string[] /** The same as far down as they are named: `article.title`. */; paths: string[] }
  | { ok: false; problem: string };

/** The fields a Liquid text speaks of, without those it makes itself; or what is wrong with its form. */
export function templateFields(template: string): TemplateFields {
  if (!template.includes('{')) return { ok: true, fields: [], paths: [] };
  try {
    const parsed = engine.parse(template);
    return {
      ok: true,
      fields: engine.globalVariablesSync(parsed),
      paths: engine.globalFullVariablesSync(parsed),
    };
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    return { ok: false, problem: error.message.split('\n')[0]! };
  }
}
