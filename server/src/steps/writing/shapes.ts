import { z } from 'zod';

/** The shapes of the writer's replies. Descriptions travel with the schema and tell the writer what goes where. */
const passages = z.array(z.int()).describe('numbers of the passages this rests on');

export const OutlineShape = z.object({
  sections: z
    .array(
      z.object({
        heading: z.string().min(1).describe('heading of the section, at most eight words'),
        says: z.string().describe('one sentence on what the section must say'),
        passages,
      }),
    )
    .min(1),
});

export const BlocksShape = z.object({
  blocks: z
    .array(
      z.object({
        kind: z.enum(['paragraph', 'list']),
        text: z.string().describe('the paragraph, or the sentence before the list'),
        items: z.array(z.string()).describe('the items of a list; empty for a paragraph'),
        passages,
      }),
    )
    .min(1),
});

export const PointsShape = z.object({
  points: z.array(z.string()).describe('key points, one short sentence each'),
});

export const QuestionsShape = z.object({
  pairs: z
    .array(
      z.object({
        question: z.string().min(1).describe('a question a reader asks, in its own words'),
        answer: z.string().min(1).describe('the answer, in one to three sentences'),
        passages,
      }),
    )
    .describe('questions with their answers'),
});

export const QuotationShape = z.object({
  quote: z
    .string()
    .describe('the words as they stand in the passage, letter by letter; empty where nothing is worth it'),
  passage: z.int().describe('number of the passage they stand in'),
});

export const TableShape = z.object({
  caption: z.string().describe('what the table shows, in a few words; empty where there is none'),
  head: z.array(z.string()).describe('what the columns hold; the first is what each row is of'),
  rows: z
    .array(z.object({ cells: z.array(z.string()).describe('one for each column, in their order'), passages }))
    .describe('the rows; none where nothing can be set side by side'),
});

export const TitlesShape = z.object({
  titles: z.array(z.string().min(1)).min(1).describe('titles to choose from'),
  description: z.string().describe('one sentence for search results'),
  keywords: z.array(z.string()).describe('words and phrases readers search for'),
  hashtags: z.array(z.string()).describe('hashtags without spaces'),
});

export type Titles = z.infer<typeof TitlesShape>;

export const JudgementShape = z.object({
  score: z.number().min(0).max(10).describe('the score, a figure from 0 to 10'),
  kind: z.string().describe('what kind of text it is, in a few words'),
  reason: z.string().describe('one sentence that says why'),
});

export const NotesShape = z.object({
  notes: z
    .array(
      z.object({ point: z.string().min(1).describe('one thing the section must say, in a short sentence'), passages }),
    )
    .describe('notes for the section'),
});

export const GistShape = z.object({
  gist: z.string().min(1).describe('what the sources say, summed up'),
  facts: z
    .array(
      z.object({
        fact: z.string().min(1).describe('one fact, as the sources state it'),
        sort: z.string().describe('name, figure or claim'),
        passages,
      }),
    )
    .describe('the facts picked out; empty when none are asked for'),
});

export const AimShape = z.object({
  phrase: z.string().min(1).describe('the phrase readers would search for, two to six words'),
  terms: z.array(z.string()).describe('related words and phrases they use'),
});

export const TranslationShape = z.object({
  texts: z
    .array(
      z.object({
        n: z.int().describe('the number of the text'),
        text: z.string().describe('the text put into the language asked for'),
      }),
    )
    .min(1)
    .describe('every text by its number'),
});
