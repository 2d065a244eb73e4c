import { describe, expect, it } from 'vitest';
import { acceptProposals } from './proposed.ts';

const accept = acceptProposals({ texts: ['What to know about {{ subject }}', 'All on {{ subject }}'], many: 3 });

describe('proposals of a writer', () => {
  it('keep every field of what they stand for, and are others than there are', () => {
    const texts = ['{{ subject }}, plainly', 'The  short\n version of {{ subject }}'];
    expect(accept({ texts }, false)).toEqual({
      ok: true,
      value: { texts: ['{{ subject }}, plainly', 'The short version of {{ subject }}'] },
    });
  });

  it.each([
    ['no field', 'What to know', 'double braces'],
    ['another field', 'On {{ secret }}', 'double braces'],
    ['one that is there', 'all on {{ SUBJECT }}'.replace('SUBJECT', 'subject'), 'there already'],
    ['open braces', '{One|Two on {{ subject }}', 'not closed'],
    ['nothing', ' ', 'empty'],
  ])('%s is told the first time and left out the second', (_, wrong, says) => {
    const texts = ['{{ subject }}, plainly', wrong];
    expect(accept({ texts }, false)).toEqual({ ok: false, problem: expect.stringContaining(says) });
    expect(accept({ texts }, true)).toEqual({ ok: true, value: { texts: ['{{ subject }}, plainly'] } });
    expect(accept({ texts: [wrong] }, true).ok).toBe(false);
  });

  it('are no more than were asked for, and none twice', () => {
    const texts = Array.from({ length: 9 }, (_, i) => `${i} on {{ subject }}`);
    expect(accept({ texts }, false)).toMatchObject({ value: { texts: texts.slice(0, 3) } });
    expect(accept({ texts: [texts[0]!, texts[0]!] }, true)).toMatchObject({ value: { texts: [texts[0]] } });
  });
});
