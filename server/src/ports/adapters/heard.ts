import { z } from 'zod';
import { readJson } from '../../ground/reading/json.ts';

const Segment = z.object({
  start: z.number().min(0),
  end: z.number().min(0),
  text: z.string(),
  /** Mean of the logarithms of how likely each word was held to be. */
  avg_logprob: z.number().max(0).optional(),
});
const Heard = z.object({
  language: z.string().default(''),
  duration: z.number().min(0),
  segments: z.array(Segment).max(50_000),
});

/** What was heard: timed text, and how sure the transcriber was of it, of 100; null where it does not say. */
export interface HeardText {
  language: string;
  seconds: number;
  segments: { start: number; end: number; text: string; sure: number | null }[];
  sure: number | null;
}

/** What a reply says was heard. */
export function readHeard(body: Buffer): { ok: true; heard: HeardText } | { ok: false; problem: string } {
  const parsed = readJson(body.toString('utf8'));
  if (!parsed.ok) return parsed;
  const read = Heard.safeParse(parsed.value);
  if (!read.success) return { ok: false, problem: 'it holds no timed text' };
  const { language, duration, segments } = read.data;
  const told = segments.filter((one) => one.text.trim() !== '');
  const share = (logarithm: number | undefined) =>
    logarithm === undefined ? null : Math.round(Math.exp(logarithm) * 100);
  const known = told.filter((one) => one.avg_logprob !== undefined);
  const lasting = known.reduce((sum, one) => sum + Math.max(0.1, one.end - one.start), 0);
  const mean = known.reduce((sum, one) => sum + one.avg_logprob! * Math.max(0.1, one.end - one.start), 0) / lasting;
  return {
    ok: true,
    heard: {
      language,
      seconds: duration,
      segments: told.map(({ start, end, text, avg_logprob }) => ({
        start,
        end: Math.max(start, end),
        text: text.trim(),
        sure: share(avg_logprob),
      })),
      sure: known.length === 0 ? null : share(mean),
    },
  };
}
