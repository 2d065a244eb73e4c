/**
 * A key nobody had before: 128 random bits in hexadecimal digits. Browsers make UUIDs for pages over https only, and many an
 * installation is reached over plain http in its own network.
 */
export function freshKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('');
}
