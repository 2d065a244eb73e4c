/** Letters from which a text counts as long. */
const LONG = 32_768;
/** Bytes up to which one goes as such; written so it is twice as long, and a statement has its limit. */
const MOST = 6_000_000;

/**
 * Parameters of a statement, the long texts among them, and in rows of them, written as their bytes in hexadecimal. Letter
 * by letter, as short ones are, a text of nothing but quotes holds up everything else for a fifth of a second.
 */
export function written(parameters: unknown[] | undefined): unknown[] | undefined {
  return parameters?.some(holdsLong) ? parameters.map(inBytes) : parameters;
}

function holdsLong(value: unknown): boolean {
  return typeof value === 'string' ? value.length >= LONG : Array.isArray(value) && value.some(holdsLong);
}

function inBytes(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inBytes);
  if (typeof value !== 'string' || value.length < LONG) return value;
  const bytes = Buffer.from(value, 'utf8');
  return bytes.length > MOST ? value : { toSqlString: () => `_utf8mb4 X'${bytes.toString('hex')}'` };
}
