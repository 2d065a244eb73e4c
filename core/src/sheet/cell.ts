/** What a column of a sheet holds. */
export const CELL_TYPES = ['text', 'number', 'day', 'yes or no', 'address'] as const;
export type CellType = (typeof CELL_TYPES)[number];

export type ReadCell =
  | { ok: true; value: string | number | boolean | null }
  /** `reads` is what it may have been meant to be. */
  | { ok: false; problem: string; reads: string | null };

const NUMBER_WORDS: ReadonlyMap<string, number> = new Map(
  'zero one two three four five six seven eight nine ten eleven twelve'.split(' ').map((word, n) => [word, n] as const),
);

/**
 * The value of a cell as its column's type; an empty cell is null. Numbers may carry a currency or unit and be written
 * the English (1,200.50) or the continental way (1.200,50); days are ISO, 31.12.2024 or 31/12/2024.
 */
export function readCell(type: CellType, raw: string): ReadCell {
  const text = raw.trim();
  if (text === '') return { ok: true, value: null };
  switch (type) {
    case 'text':
      return { ok: true, value: text };
    case 'number':
      return readNumber(text);
    case 'day':
      return readDay(text);
    case 'yes or no': {
      if (/^(?:yes|y|true|1|x|ja|oui|si|sí)$/i.test(text)) return { ok: true, value: true };
      if (/^(?:no|n|false|0|nein|non)$/i.test(text)) return { ok: true, value: false };
      return { ok: false, problem: `‘${short(text)}’ is neither yes nor no`, reads: null };
    }
    case 'address':
      return /^https?:\/\/[^\s/]\S*$/i.test(text)
        ? { ok: true, value: text }
        : {
            ok: false,
            problem: `‘${short(text)}’ is not an address`,
            reads: /^[\w-]+(?:\.[\w-]+)+(?:\/\S*)?$/.test(text) ? `https://${text}` : null,
          };
  }
}

/** Most figures are written plainly; a pattern a cell would take longer than all the rest of reading it. */
export function isPlain(text: string): boolean {
  let dots = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === 46) dots++;
    else if (code < 48 || code > 57) return false;
  }
  return dots === 0 || (dots === 1 && text.length > 1);
}

function readNumber(text: string): ReadCell {
  if (isPlain(text)) return { ok: true, value: Number(text) };
  const bare = text
    .replace(/^[-+]?\s*[€$£]\s*/, (sign) => (sign.startsWith('-') ? '-' : ''))
    .replace(/(?:€|\$|£|%|[a-zA-Z]{1,3})$/, '')
    .trimEnd();
  const grouped = bare.replace(/(?<=\d)[\s\u00a0'’](?=\d{3})/g, '');
  let plain = grouped;
  if (/^[-+]?\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(grouped)) plain = grouped.replace(/,/g, '');
  else if (/^[-+]?\d{1,3}(?:\.\d{3})+,\d+$/.test(grouped)) plain = grouped.replace(/\./g, '').replace(',', '.');
  else if (/^[-+]?\d+,\d+$/.test(grouped)) plain = grouped.replace(',', '.');
  if (/^[-+]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[-+]?\d+)?$/i.test(plain)) return { ok: true, value: Number(plain) };
  const meant = NUMBER_WORDS.get(text.toLowerCase()) ?? /[-+]?\d+(?:\.\d+)?/.exec(text)?.[0];
  return { ok: false, problem: `‘${short(text)}’ is not a number`, reads: meant === undefined ? null : String(meant) };
}

const MONTHS = 'January February March April May June July August September October November December'.split(' ');

function readDay(text: string): ReadCell {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/.exec(text);
  const other = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(text);
  const parts = iso ? [iso[1], iso[2], iso[3]] : other ? [other[3], other[2], other[1]] : null;
  if (!parts) return { ok: false, problem: `‘${short(text)}’ is not a day such as 2024-12-31`, reads: null };
  const [year, month, day] = parts.map(Number) as [number, number, number];
  if (month < 1 || month > 12) return { ok: false, problem: `there is no month ${month}`, reads: null };
  const last = daysIn(year, month);
  if (day < 1 || day > last)
    return {
      ok: false,
      problem: `there is no ${day} ${MONTHS[month - 1]}`,
      reads: day > last && day <= 31 ? dayText(...nextMonth(year, month), day - last) : null,
    };
  return { ok: true, value: dayText(year, month, day) };
}

function daysIn(year: number, month: number): number {
  if (month === 2) return (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0 ? 29 : 28;
  return [4, 6, 9, 11].includes(month) ? 30 : 31;
}

function nextMonth(year: number, month: number): [number, number] {
  return month === 12 ? [year + 1, 1] : [year, month + 1];
}

function dayText(year: number, month: number, day: number): string {
  return `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
}

function short(text: string): string {
  return text.length > 30 ? `${text.slice(0, 29)}…` : text;
}
