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

/** Puts a text with its looks and links in the clipboard, for word processors and mail; where only plain text fits, that. */
export async function copyRich(html: string, plain: string): Promise<void> {
  if (navigator.clipboard && 'ClipboardItem' in window) {
    const held = (type: string, text: string) => [type, new Blob([text], { type })] as const;
    const item = new ClipboardItem(Object.fromEntries([held('text/html', html), held('text/plain', plain)]));
    return navigator.clipboard.write([item]);
  }
  const listen = (event: ClipboardEvent) => {
    event.preventDefault();
    event.clipboardData?.setData('text/html', html);
    event.clipboardData?.setData('text/plain', plain);
  };
  document.addEventListener('copy', listen);
  const done = document.execCommand('copy');
  document.removeEventListener('copy', listen);
  if (!done) throw new Error('The browser did not let it be copied: open the HTML and copy it from there.');
}
