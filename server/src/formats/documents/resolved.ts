/** An address beside that of what it stands in; null when it is none. */
export function resolved(href: string | null | undefined, base: string): string | null {
  const text = href?.trim() ?? '';
  if (text === '' || !URL.canParse(text, base)) return null;
  const url = new URL(text, base);
  return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : null;
}
