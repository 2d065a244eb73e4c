import { subjectDigest } from '../../ground/store/subject.ts';
import type { Write } from '../../ground/store/write.ts';

const LONGEST_FIRST = 460;

/** What a brief of several items is about, in short: the first of them, and how many others there are. */
export function gatheredSubject([first = '', ...others]: readonly string[]): string {
  return others.length === 0 ? first : `${first.slice(0, LONGEST_FIRST)} and ${others.length} more`;
}

/**
 * A brief is known to be about something else than was said when it was made.
 * @param brief with its language, and what it is about until now
 */
export function aboutNow(brief: { id: string; subject: string; language: string }, subject: string): Write {
  return {
    text: 'UPDATE brief SET subject = ?, subject_sign = ? WHERE id = ? AND subject = ?',
    parameters: [subject, subjectDigest(subject, brief.language), brief.id, brief.subject],
  };
}
