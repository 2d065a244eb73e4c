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

export const TitlesShape = z.object({
  titles: z.array(z.string().min(1)).min(1).describe('titles to choose from'),
  description: z.string().describe('one sentence for search results'),
  keywords: z.array(z.string()).describe('words and phrases readers search for'),
  hashtags: z.array(z.string()).describe('hashtags without spaces'),
});
