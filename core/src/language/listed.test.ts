import { expect, test } from 'vitest';
import { lines, textsIn } from '../testing/corpus.ts';
import { languageOf } from './detect.ts';

test('the language of texts cut short', async () => {
  const others = [
    'Le couteau de cuisine doit être aiguisé une fois par mois.',
    'El cuchillo de cocina se afila una vez al mes.',
    'Il coltello da cucina va affilato una volta al mese.',
    'Het keukenmes moet een keer per maand worden geslepen.',
    'Нож нужно точить раз в месяц.',
    'يجب شحذ السكين مرة في الشهر.',
    '包丁は月に一度研ぎます。',
    'Kniven bør slipes en gang i måneden.',
    'Nóż kuchenny należy ostrzyć raz w miesiącu.',
    'A faca de cozinha deve ser afiada uma vez por mês.',
    '12345 67890',
    '',
    'ok',
    'the the the',
  ];
  const cuts = [7, 8, 9, 10, 15, 20, 30, 60, 200];
  const all = [...textsIn('en', 25), ...textsIn('de', 25), ...others].map(
    (text) => `${text.slice(0, 30)}: ${cuts.map((most) => languageOf(text.slice(0, most))).join(' ')}`,
  );
  await expect(lines(all)).toMatchFileSnapshot('listed/languages.txt');
});
