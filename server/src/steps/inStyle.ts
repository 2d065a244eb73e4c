import {
  type ArticleDocument,
  allSteps,
  type Block,
  fillMarkup,
  fillTemplate,
  inHouseWords,
  PERSONS,
  type Person,
  type PersonAsked,
  type Replaced,
  type Step,
  stepIdOf,
  withStanding,
} from '@grivo/core';
import { z } from 'zod';
import type { StepContext } from '../engine/performer.ts';
import { fieldsInTexts } from '../nouns/articles/inTexts.ts';
import { type StyleMeant, styleAt } from '../nouns/styles/meant.ts';
import type { Tools } from '../ports/tools.ts';

type Where = Pick<StepContext, 'brief' | 'run'>;

/** The house style a step of a brief keeps to; null for none. */
export function styleFor({ ground }: Pick<Tools, 'ground'>, { brief }: Where, step: Step): Promise<StyleMeant | null> {
  return styleAt(ground.db, brief.document, step);
}

/** The named texts of the house style at a step, for texts that speak of them. */
export async function houseValues(
  tools: Pick<Tools, 'ground'>,
  { brief, run }: Where,
): Promise<Record<string, string>> {
  const id = stepIdOf(run.path);
  const step = brief.steps.get(id) ?? allSteps(brief.document.steps)[0];
  const style = step ? await styleAt(tools.ground.db, brief.document, step) : null;
  return valuesOf(style);
}

const valuesOf = (style: StyleMeant | null): Record<string, string> =>
  Object.fromEntries((style?.document.values ?? []).map(({ name, text }) => [name, text]));

/** Without a house style, or where that leaves it to the steps, readers are spoken to. */
export function personFor(asked: PersonAsked, style: StyleMeant | null): Person {
  return asked === 'as the house style' ? (style?.document.person ?? 'second person') : asked;
}

const Spoken = z.object({ person: z.enum(PERSONS) });

/** Who speaks in an article as it was written; null where no house style was kept to. */
export function personWritten({ fields }: Pick<StepContext, 'fields'>): Person | null {
  return Spoken.safeParse(fields['houseStyle']).data?.person ?? null;
}

/** What the house style did to an article. */
export interface Housed {
  body: Block[];
  /** What its rules replaced. */
  replaced: Replaced[];
  fields: {
    /** In which it was written, and who speaks in it. */
    houseStyle: { id: string; name: string; version: number; person: Person };
    reworded: { from: string; to: string }[];
    standingLeftOut?: string[];
  };
}

/** An article in the words of its house, with its standing texts, call and disclosure. */
export async function housed(
  tools: Pick<Tools, 'ground'>,
  context: StepContext,
  style: StyleMeant,
  person: Person,
  document: Pick<ArticleDocument, 'body' | 'language' | 'title' | 'keyPhrase'>,
): Promise<Housed> {
  const { body, reworded, replaced } = inHouseWords(document.body, style.document, document.language);
  const texts = [
    ...style.document.standing.flatMap(({ texts }) => texts),
    style.document.call?.before ?? '',
    style.document.call?.address ?? '',
    style.document.closingLink?.before ?? '',
    style.document.closingLink?.words ?? '',
    style.document.closingLink?.address ?? '',
    style.document.disclosure,
  ];
  const given = { title: document.title || context.brief.subject, ...context.fields };
  const fields = { ...(await fieldsInTexts(tools.ground.db, given, texts)), house: valuesOf(style) };
  const done = withStanding(body, style.document, {
    seed: context.brief.seed,
    fill: (text, markup = false) => {
      const filled = (markup ? fillMarkup : fillTemplate)(text, fields);
      return filled.ok ? filled.text : null;
    },
  });
  const { id, name, version } = style;
  return {
    body: done.body,
    replaced,
    fields: {
      houseStyle: { id, name, version, person },
      reworded,
      ...(done.leftOut.length > 0 ? { standingLeftOut: done.leftOut } : {}),
    },
  };
}
