import { z } from 'zod';
import { everyLook } from './look.ts';

/** Subjects with notes, typed in by people. */
export const RequestSettings = z.strictObject({ kind: z.literal('requests'), ...everyLook });
export type RequestSettings = z.infer<typeof RequestSettings>;
