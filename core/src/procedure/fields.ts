import { z } from 'zod';

/** What every step document has. */
export const stepBase = {
  id: z.string().regex(/^[a-z][a-z0-9]{0,15}$/, 'an id as s4'),
  off: z.boolean().default(false),
  /** Held after it is done, for a person to look, edit and let go. */
  hold: z.boolean().optional(),
  /** The service that does it; without one, that of the procedure, else that of the installation. */
  service: z.string().max(20).optional(),
  /** The house style it keeps to; without one, that of the procedure, else that of the blog it is published to. */
  style: z.string().max(20).optional(),
};

/** The same as a type, for kinds whose documents hold steps themselves. */
export interface StepBase {
  id: string;
  off: boolean;
  hold?: boolean | undefined;
  service?: string | undefined;
  style?: string | undefined;
}

/** Own instruction of a making step: a Liquid text with the declared fields. */
export const instruction = z.string().max(20_000).default('');

/** Texts after whose manner a making step is to work, at most five. */
export const examples = z.array(z.string().trim().min(1).max(2_000)).max(5).default([]);

/** The name something is kept under; a word that expressions and templates can say. */
export const fieldName = z
  .string()
  .regex(/^[a-z][A-Za-z0-9]{0,39}$/, 'a name of letters and figures that begins with a small letter, as mainPoint');

/** A range with both ends, the first not above the second. */
export function range(least: number, most: number) {
  return z
    .strictObject({ from: z.int().min(least).max(most), to: z.int().min(least).max(most) })
    .refine((value) => value.from <= value.to, 'the first figure must not be above the second');
}

/** Headings by their number, the last by its name: '2, last'. */
export const headings = z
  .string()
  .trim()
  .regex(/^(?:[1-9]\d?|last)(?: ?, ?(?:[1-9]\d?|last)){0,9}$/, 'numbers of headings, as 2, last');
