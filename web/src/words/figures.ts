import { MOST_COUNTED } from '@grivo/contract';

/** Money of the ledger as people read it: '0.61 €'. Below a cent three places are shown, so that cheap is not free. */
export function money(micros: number): string {
  return `${amount(micros)} €`;
}

/** The same without the sign, for columns that say it in their head. */
export function amount(micros: number): string {
  const value = micros / 1_000_000;
  if (value !== 0 && Math.abs(value) < 0.001) return value.toPrecision(1);
  return value !== 0 && Math.abs(value) < 0.01 ? value.toFixed(3) : value.toFixed(2);
}

/** A price or a limit as it was entered: to the last of its figures, two behind the point at least. */
export function exact(micros: number): string {
  const [whole = '0', behind = ''] = String(micros / 1_000_000).split('.');
  return `${whole}.${behind.padEnd(2, '0')} €`;
}

export function count(n: number): string {
  return n.toLocaleString('en-GB');
}

/** A number of rows, which are counted only so far. */
export function counted(n: number): string {
  return n > MOST_COUNTED ? `over ${count(MOST_COUNTED)}` : count(n);
}

export function plural(n: number, one: string, many = `${one}s`): string {
  return `${count(n)} ${n === 1 ? one : many}`;
}

/** A title up to its colon where space is short and it has one. */
export function atColon(title: string): string {
  const at = title.indexOf(':');
  return at > 8 ? title.slice(0, at) : title;
}
