/** An address as somebody types it: without spaces around it, and with `https://` where they left that out. */
export function webAddress(typed: string): string {
  const text = typed.trim();
  return text === '' || /^[a-z][a-z0-9+.-]*:\/\//i.test(text) ? text : `https://${text.replace(/^\/+/, '')}`;
}
