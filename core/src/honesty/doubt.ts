/** What may be wrong with a statement that rests on sources. */
export const DOUBTS = ['figure', 'date', 'name', 'quotation', 'opposite', 'subject', 'nothing'] as const;
export type DoubtKind = (typeof DOUBTS)[number];

/** Something a text says that its sources do not, or say otherwise. */
export interface Doubt {
  kind: DoubtKind;
  /** The words it is about, as they stand in the text. */
  words: string;
}
