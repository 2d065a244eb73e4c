/** A field items of a source bring along. */
export interface ItemField {
  name: string;
  /** Whether every item of that source has it. */
  always: boolean;
}

/**
 * What an item may bring along without having to, whatever source it is of. Where one has none of it, a text that speaks
 * of it says nothing there, rather than that it cannot be filled.
 */
export const MAY_BRING: readonly string[] = [
  ...['title', 'titleStays', 'description', 'volume', 'difficulty', 'phrases'],
  ...['link', 'text', 'summary', 'entry', 'document', 'captions', 'video', 'recording', 'partnerLink', 'publication'],
];

/** The columns of a sheet among what its rows bring along. */
export function sheetColumns(brings: readonly ItemField[]): string[] {
  return brings.flatMap(({ name }) => (name === 'row' || name === 'sheet' ? [] : name));
}

/** What a text can say of the article as it stands: `{{ article.description }}`. */
export const ARTICLE_FIELDS = [
  ...(['title', 'description', 'slug', 'keyPhrase', 'keywords', 'hashtags', 'summary', 'language', 'words'] as const),
  ...(['html', 'markdown', 'plain', 'picture', 'address'] as const),
] as const;
export type ArticleFieldName = (typeof ARTICLE_FIELDS)[number];
