/** Puts text into the clipboard. Browsers hand theirs to pages over https only; elsewhere a hidden field is copied from. */
export async function copyText(text: string): Promise<void> {
  if (navigator.clipboard) return navigator.clipboard.writeText(text);
  const field = document.createElement('textarea');
  field.value = text;
  field.setAttribute('aria-hidden', 'true');
  field.style.cssText = 'position:fixed;top:0;opacity:0';
  const before = document.activeElement;
  document.body.append(field);
  field.focus();
  field.select();
  const done = document.execCommand('copy');
  field.remove();
  if (before instanceof HTMLElement) before.focus();
  if (!done) throw new Error('The browser did not let it be copied: mark it and copy it by hand.');
}
