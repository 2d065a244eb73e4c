import { describe, expect, it } from 'vitest';
import { articleDoubts } from '../article/doubts.ts';
import { bareFigures, isOnlyByFigures } from './bare.ts';

const SOURCE =
  'The useful range runs from 2 to 2.5 per cent; that is 20 to 25 grams for every kilogram, 1,400 in all, or 0.025.';

describe('figures of a text in another language than its source', () => {
  it.each([
    ['Det blir 20 till 25 gram, 2,5 procent, 1 400 i allt.', []],
    ['つまり、塩20から25グラムです。2.5パーセント。', []],
    ['أي من ٢٠ إلى ٢٥ غراما، أو ٢٫٥ بالمئة', []],
    ['Det blir 21 till 25 gram.', ['21']],
    ['塩30グラムです。', ['30']],
    ['أي ٣٠ غراما', ['٣٠']],
    ['Ta 25 av 0,025.', []],
  ])('%s', (text, strange) => {
    expect(bareFigures(text, [SOURCE])).toEqual(strange);
  });

  it('are all that counts where one of two languages is not known, or the script has no forms to go by', () => {
    expect(isOnlyByFigures('Salt.', 'en', 'de')).toBe(false);
    expect(isOnlyByFigures('Salt.', 'sv', 'en')).toBe(true);
    expect(isOnlyByFigures('Salt.', 'en', 'sv')).toBe(true);
    expect(isOnlyByFigures('Sel.', 'fr', 'fr-CA')).toBe(false);
    expect(isOnlyByFigures('塩です。', 'ja', 'ja')).toBe(true);
  });

  it('no name, unit or clause of such a text is doubted, and a figure nobody said is, in its block', () => {
    const block = (id: string, text: string) => ({
      type: 'paragraph' as const,
      id,
      content: [{ text }],
      evidence: [{ passage: 'm:1', digest: 'd' }],
    });
    const body = [block('a', 'Enligt Ingrid blir det 20 till 25 gram.'), block('b', 'Det blir 40 gram i Malmö.')];
    expect(articleDoubts({ body, language: 'sv' }, [{ id: 'm:1', text: SOURCE, language: 'en' }])).toEqual([
      { block: 'b', kind: 'figure', words: '40' },
    ]);
  });
});
