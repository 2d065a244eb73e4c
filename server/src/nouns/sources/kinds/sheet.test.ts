import { SheetSettings } from '@grivo/contract';
import { expect, test } from 'vitest';
import { ArrayRow } from '../../../formats/tables/row.ts';
import { foundReader, guessedSettings } from './sheet.ts';

const rows = [['name'], ['Crock'], ['Lid'], ['Crock'], ['Crock'], ['Crock']].map((cells, i) =>
  Object.assign(new ArrayRow(cells), { n: i + 1 }),
);
const guessed = guessedSettings(
  SheetSettings.parse({ kind: 'sheet', file: null, header: 1 }),
  rows.map(({ cells }) => cells),
);
const settings = { ...guessed, identity: ['name'] };

test('rows known by the same as one before are left out, and where nearly all are the reading ends', () => {
  expect(foundReader(settings, 'Stock')(rows).map(({ leftOut }) => leftOut?.detail ?? null)).toEqual([
    null,
    null,
    'row 4: the same name as row 2',
    'row 5: the same name as row 2',
    'row 6: the same name as row 2',
  ]);
  expect(() => foundReader(settings, 'Stock', 2)(rows)).toThrow(
    'more than 2 rows have the same name as a row before; choose what tells them apart',
  );
});
