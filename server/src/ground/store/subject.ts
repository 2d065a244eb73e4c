import { hash } from 'node:crypto';
import { subjectSign } from '@grivo/core';

/** What a subject is about, as briefs keep it to be found by: equal for phrases one article answers; null where nothing tells. */
export function subjectDigest(subject: string, language: string): string | null {
  const sign = subjectSign(subject, language);
  return sign === null ? null : hash('sha256', sign);
}
