import LinkHeader from 'http-link-header';
import { resolved } from '../documents/resolved.ts';

/** A header longer than this names nothing anybody needs. */
const LONGEST = 16_384;

/**
 * Links of a reply's header by their relation (RFC 8288), the first of each. A header that cannot be read names none.
 * @param base what addresses in it are resolved against
 */
export function linksOf(header: string, base: string): Map<string, string> {
  const out = new Map<string, string>();
  if (header === '' || header.length > LONGEST) return out;
  // What has no relation names none.
  let refs: readonly { uri: string; rel?: string }[];
  try {
    ({ refs } = LinkHeader.parse(header));
  } catch {
    return out;
  }
  for (const { uri, rel } of refs) {
    const address = resolved(uri, base);
    if (address !== null)
      for (const one of rel?.toLowerCase().split(/\s+/) ?? []) if (!out.has(one)) out.set(one, address);
  }
  return out;
}
