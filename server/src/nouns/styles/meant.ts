import { createHash } from 'node:crypto';
import {
  allSteps,
  blogMeant,
  HouseStyleDocument,
  keepsToStyle,
  type Passage,
  type ProcedureDocument,
  type Step,
  styleNamed,
} from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { procedureOfBrief } from '../routines/versions.ts';

/** The house style that is meant somewhere, in the version it has now. */
export interface StyleMeant {
  id: string;
  name: string;
  version: number;
  document: HouseStyleDocument;
}

type Stored = Omit<StyleMeant, 'document'> & { document: unknown };

const SELECT =
  'SELECT s.id, s.name, s.version, v.document FROM house_style s JOIN house_style_version v ON v.style = s.id AND v.n = s.version';

/** The style a step keeps to: the one it or its procedure names, else that of the blog its article goes to; null for none. */
export async function styleAt(sql: Sql, procedure: ProcedureDocument, step: Step): Promise<StyleMeant | null> {
  const named = styleNamed(step, procedure);
  if (named !== null) return one(await sql.rows<Stored>(`${SELECT} WHERE s.id = ?`, [named]));
  const blog = blogMeant(procedure.steps, step.id);
  return blog === null ? null : styleOfBlog(sql, blog);
}

export async function styleOfBlog(sql: Sql, blog: string): Promise<StyleMeant | null> {
  return one(await sql.rows<Stored>(`${SELECT} JOIN blog b ON b.style = s.id WHERE b.id = ?`, [blog]));
}

function one([row]: readonly Stored[]): StyleMeant | null {
  return row ? { ...row, document: HouseStyleDocument.parse(row.document) } : null;
}

/** What is true of us as passages an article may rest on; known by what they say. */
export function factPassages({ name, document: { facts } }: StyleMeant, language: string): Passage[] {
  return facts.map((text) => {
    const digest = createHash('sha256').update(`fact ${language} ${text}`).digest('hex');
    return {
      id: `${digest}:1`,
      text,
      language,
      locator: { title: `About us, from the house style ‘${name}’`, address: '', paragraph: 1 },
    };
  });
}

/** The style an article made in a brief keeps to: that of the step that writes it, else that of the blog it goes to. */
export async function styleOfBrief(sql: Sql, brief: string): Promise<StyleMeant | null> {
  const procedure = await procedureOfBrief(sql, brief);
  if (!procedure) return null;
  const steps = allSteps(procedure.steps);
  const step = steps.find(({ kind }) => kind === 'write') ?? steps.find(keepsToStyle) ?? steps[0];
  const style = step ? await styleAt(sql, procedure, step) : null;
  const told = step?.kind === 'write' && step.person !== 'as the house style' ? step.person : null;
  // Where the step was told who speaks, the house has no say in it.
  return style && told !== null && told !== style.document.person
    ? { ...style, document: { ...style.document, person: null } }
    : style;
}
