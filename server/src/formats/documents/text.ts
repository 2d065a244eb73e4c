/** A document's text: paragraphs in order, each with the heading it stands under and, of a PDF, its page. */
export interface DocumentText {
  title: string;
  /** Two letters, where the document says so. */
  language: string | null;
  published: string | null;
  paragraphs: { text: string; heading: string; page?: number }[];
}

/** Why there is none, in words that go on from ‘it’. */
export interface Unread {
  problem: string;
}
