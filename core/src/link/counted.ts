/** The path of the public door that counted links go through. */
const COUNTED = '/go/';
/** The longest address that is counted, in letters: within another one each may take three, and servers take some 8,000. */
const LONGEST = 2_000;

/**
 * An address that is counted on its way: the real one stands in it, readable, beside a mark that tells it was made here.
 * @param door where the public door is reached, as `https://grivo.example`
 * @param by whose article it stands in, and the mark of both
 */
export function countedAddress(door: string, { by, mark }: { by: string; mark: string }, address: string): string {
  return `${door.replace(/\/$/, '')}${COUNTED}${by}/${mark}?to=${encodeURIComponent(address)}`;
}

/** Whether an address is one that is counted: of the web, outside our own blogs, and not too long. */
export function isCounted(address: string, own: readonly string[]): boolean {
  if (!/^https?:\/\//i.test(address) || address.length > LONGEST) return false;
  return !own.some((blog) => isWithin(address, blog));
}

/** Whether an address is that of a site or below it; another site may begin with the same letters. */
function isWithin(address: string, site: string): boolean {
  const home = site.replace(/\/$/, '').toLowerCase();
  return address.toLowerCase().startsWith(home) && /^(?:[/?#]|$)/.test(address.slice(home.length));
}

/** What only counted addresses look like: who it is by, and a mark of 16 bytes. */
const LOOKS = /\/go\/[0-9a-z]{20}\/[\w-]{22}\?to=[^&#]+$/i;

/** The real address of one that is counted, wherever the door was when it was made; any other as it is. */
export function plainAddress(address: string): string {
  if (!LOOKS.test(address)) return address;
  return URL.parse(address)?.searchParams.get('to') || address;
}
