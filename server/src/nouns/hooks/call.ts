import { HookCall, type HookSettings } from '@grivo/contract';

/** What a call is refused with. */
export interface Refusal {
  status: 401 | 404 | 409 | 422;
  title: string;
  problem: string;
  mend: string;
  places?: { place: string; problem: string }[];
}

export const refused = (
  status: Refusal['status'],
  title: string,
  problem: string,
  mend: string,
  places?: Refusal['places'],
): { ok: false; refusal: Refusal } => ({
  ok: false,
  refusal: { status, title, problem, mend, ...(places ? { places } : {}) },
});

const OWN = new Set(['subject', 'notes', 'link', 'key']);

type ReadCall = { ok: true; call: HookCall; fields: Record<string, unknown> } | { ok: false; refusal: Refusal };

/** A call's body by the hook's own schema: each field it names of its type, none it does not know. */
export function readCall(body: string, settings: HookSettings): ReadCall {
  const parsed = jsonIn(body);
  if (!parsed.ok) return parsed;
  const read = HookCall.safeParse(parsed.value);
  if (!read.success) {
    const issues = read.error.issues.flatMap((issue) =>
      issue.code === 'invalid_union' ? (issue.errors[0] ?? []) : [issue],
    );
    const places = issues.map((issue) => ({ place: issue.path.join('.') || 'the call', problem: issue.message }));
    return refused(
      422,
      'Of another shape',
      `${places[0]?.place ?? 'the call'}: ${places[0]?.problem ?? 'it does not fit'}.`,
      'Send {"subject": "…"}, with the fields this hook takes, or {"run": true}.',
      places,
    );
  }
  const call = read.data;
  if ('run' in call) return { ok: true, call, fields: {} };
  const own = call as Record<string, unknown>;
  const places = wrongFields(own, settings);
  if (places.length > 0)
    return refused(
      422,
      'Of another shape',
      `${places[0]!.place}: ${places[0]!.problem}.`,
      'Correct the places named and send it again; nothing was kept.',
      places,
    );
  const { subject: _, key: __, notes, ...fields } = own;
  // A field that was not said is there and empty: a text that speaks of it says nothing there.
  const unsaid = Object.fromEntries(settings.fields.map(({ name }) => [name, null]));
  // Notes are what a step makes; what came with an item is its text.
  return {
    ok: true,
    call,
    fields: { ...unsaid, ...fields, ...(notes === undefined ? {} : { text: notes }), about: 'by a program' },
  };
}

function fits(value: unknown, type: HookSettings['fields'][number]['type']): boolean {
  switch (type) {
    case 'text':
      return typeof value === 'string' && value.length <= 100_000;
    case 'number':
      return typeof value === 'number' && Number.isFinite(value);
    case 'yes or no':
      return typeof value === 'boolean';
    case 'address':
      return typeof value === 'string' && /^https?:\/\//i.test(value) && URL.canParse(value);
  }
}

/** A type with the word before it: 'a number', 'an address', 'yes or no'. */
function oneOf(type: string): string {
  return type === 'yes or no' ? type : /^[aeiou]/.test(type) ? `an ${type}` : `a ${type}`;
}

function jsonIn(body: string): Extract<ReadCall, { ok: false }> | { ok: true; value: unknown } {
  try {
    return { ok: true, value: JSON.parse(body) };
  } catch (error) {
    if (!(error instanceof SyntaxError || error instanceof RangeError)) throw error;
    return refused(
      422,
      'Not JSON',
      'The body of the call is not JSON.',
      'Send JSON, with the content type application/json.',
    );
  }
}

/** Fields a hook does not know, misses, or gets in another form than it takes. */
function wrongFields(own: Record<string, unknown>, { fields }: HookSettings): { place: string; problem: string }[] {
  const known = fields.map(({ name }) => name);
  return [
    ...Object.keys(own)
      .filter((name) => !OWN.has(name) && !known.includes(name))
      .map((name) => ({
        place: name,
        problem: `there is no such field; there are subject, notes, link${known.map((one) => `, ${one}`).join('')}`,
      })),
    ...fields.flatMap(({ name, type, needed }) => {
      const given = own[name];
      if (given === undefined || given === null) return needed ? [{ place: name, problem: 'is missing' }] : [];
      return fits(given, type) ? [] : [{ place: name, problem: `is not ${oneOf(type)}` }];
    }),
  ];
}
