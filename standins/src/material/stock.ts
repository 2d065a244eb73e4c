/** One row of the stock sheet, as it is typed. */
export type StockRow = string[];

export const STOCK_HEADER = [
  'SKU',
  'Name',
  'Kind',
  'Litres',
  'Glaze',
  'Price €',
  'In stock',
  'Arrived',
  'Shelf',
  'Notes',
];

/** Kilos of cabbage that go in: four fifths of the room, a litre pressed weighing about a kilo. */
function holds(litres: string): string {
  const kilos = Math.round(Number(litres) * 8) / 10;
  return Number(litres) >= 1 ? ` The ${litres} litre one takes about ${kilos} kilos of cabbage.` : '';
}

/**
 * The stock of a small shop from its families ('# name | kind | litres | glazes | price a litre', then what is said of
 * it): a row for each size and glaze. Some rows have slips, as sheets people type have.
 */
export function stockRows(text: string): StockRow[] {
  const rows = text
    .split(/^# /m)
    .filter((part) => part.trim() !== '')
    .flatMap((part) => {
      const [head = '', ...notes] = part.trim().split('\n');
      const [name = '', kind = '', litres = '', glazes = '', price = ''] = head.split('|').map((cell) => cell.trim());
      return litres
        .split(' ')
        .flatMap((size) =>
          glazes.split(' ').map((glaze) => ({ name, kind, size, glaze, price: Number(price), notes: notes.join(' ') })),
        );
    })
    .map(({ name, kind, size, glaze, price, notes }, i): StockRow => {
      const cost = Number(size) > 0 && price < 15 ? price * Number(size) + 4 : price;
      const day = new Date(Date.UTC(2026, 7, 24 + Math.floor(i * 1.6)));
      return [
        `CH-${String(501 + i).padStart(4, '0')}`,
        Number(size) > 0 ? `${name}, ${size} l` : name,
        kind,
        size,
        glaze,
        cost.toFixed(2),
        String((i * 37) % 120),
        day.toISOString().slice(0, 10),
        `${'ABCDE'[i % 5]}${(i % 7) + 1}`,
        notes + holds(size),
      ];
    });
  slip(rows, 13, 3, 'five');
  slip(rows, 19, 0, rows[6]![0]!);
  slip(rows, 23, 1, '');
  slip(rows, 27, 7, '2026-11-31');
  return rows;
}

function slip(rows: StockRow[], row: number, column: number, cell: string): void {
  if (rows[row]) rows[row][column] = cell;
}
