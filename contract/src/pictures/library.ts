import { z } from 'zod';
import { Id } from '../id.ts';

/** Pictures of picture libraries that fit some words. */
export const FoundPicturesQuery = z.object({
  words: z.string().trim().min(1, 'what it should show').max(200),
  language: z.string().max(10).default('en'),
});
export const FoundPictures = z.object({
  libraries: z.array(
    z.object({
      id: Id,
      name: z.string(),
      pictures: z.array(
        z.object({
          /** As the library knows it. */
          id: z.string(),
          shows: z.string(),
          /** Empty where nobody has to be named. */
          credit: z.string(),
          /** The picture in small, as an address of its own (RFC 2397). */
          thumb: z.string(),
          /** It is among our pictures already. */
          isUsed: z.boolean(),
        }),
      ),
      /** Why it could not be asked. */
      problem: z.string().nullable(),
    }),
  ),
});
export type FoundPictures = z.infer<typeof FoundPictures>;

export const BringFound = z.strictObject({
  words: z.string().trim().min(1).max(200),
  language: z.string().max(10).default('en'),
  /** As the library knows it. */
  picture: z.string().min(1).max(200),
});
