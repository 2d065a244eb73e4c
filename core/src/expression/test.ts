import { z } from 'zod';

/** What 'when' asks of a field. */
export const IS = ['filled', 'empty', 'equal to', 'other than', 'above', 'below', 'holding', 'not holding'] as const;

export const FieldTest = z.strictObject({
  /** A field, or a part of one: `judgement.score`. */
  field: z
    .string()
    .regex(/^[a-z][A-Za-z0-9]*(\.[A-Za-z0-9_-]+)*$/, 'the name of a field, as judgement.score')
    .max(120),
  is: z.enum(IS),
  /** Compared with; ignored by 'filled' and 'empty'. */
  value: z.string().max(500).default(''),
});
export type FieldTest = z.infer<typeof FieldTest>;

/** The value a path of names leads to, undefined when it leads nowhere. */
export function valueAt(fields: Readonly<Record<string, unknown>>, path: string): unknown {
  let value: unknown = fields;
  for (const name of path.split('.')) {
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, name)) return undefined;
    value = (value as Record<string, unknown>)[name];
  }
  return value;
}

/**
 * Whether a test holds. Figures are compared as figures when both sides are some, otherwise texts without regard to case;
 * of a list, 'holding' asks for a member, of a text for a part. What is not there is empty and holds nothing.
 */
export function testHolds(test: FieldTest, fields: Readonly<Record<string, unknown>>): boolean {
  const value = valueAt(fields, test.field);
  const text = textOf(value).toLowerCase();
  const wanted = test.value.trim().toLowerCase();
  const figures = [numberOf(value), numberOf(test.value)] as const;
  const both = figures[0] !== null && figures[1] !== null;
  switch (test.is) {
    case 'filled':
      return !isEmpty(value);
    case 'empty':
      return isEmpty(value);
    case 'equal to':
      return both ? figures[0] === figures[1] : text === wanted;
    case 'other than':
      return both ? figures[0] !== figures[1] : text !== wanted;
    case 'above':
      return both && figures[0]! > figures[1]!;
    case 'below':
      return both && figures[0]! < figures[1]!;
    case 'holding':
      return Array.isArray(value)
        ? value.some((member) => textOf(member).toLowerCase() === wanted)
        : wanted !== '' && text.includes(wanted);
    case 'not holding':
      return !testHolds({ ...test, is: 'holding' }, fields);
  }
}

export function isEmpty(value: unknown): boolean {
  if (value === undefined || value === null) return true;
  if (typeof value === 'string') return value.trim() === '';
  if (Array.isArray(value)) return value.length === 0;
  return typeof value === 'object' && Object.keys(value).length === 0;
}

/** A value as text: lists joined by commas, records as JSON. */
export function textOf(value: unknown): string {
  if (value === undefined || value === null) return '';
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return value.map(textOf).join(', ');
  return typeof value === 'object' ? JSON.stringify(value) : String(value);
}

/** The figure a value is, null when it is none. Text may be written as people write figures: 1,200 or 12.5. */
export function numberOf(value: unknown): number | null {
  if (typeof value === 'number') return Number.isFinite(value) ? value : null;
  if (typeof value !== 'string' || !/^\s*[-+]?(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?\s*$/.test(value)) return null;
  return Number(value.replace(/,/g, ''));
}
