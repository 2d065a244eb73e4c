import { z } from 'zod';
import { common } from './common.ts';

/** Subjects with notes, typed in by people. */
export const RequestSettings = z.strictObject({ kind: z.literal('requests'), ...common });
export type RequestSettings = z.infer<typeof RequestSettings>;
