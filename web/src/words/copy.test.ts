// @vitest-environment jsdom
import { afterEach, expect, test, vi } from 'vitest';
import { copyText } from './copy.ts';

afterEach(() => {
  vi.unstubAllGlobals();
  document.body.replaceChildren();
});

test('text is copied where the browser hands out no clipboard, and the focus stays where it was', async () => {
  vi.stubGlobal('navigator', {});
  const button = document.body.appendChild(document.createElement('button'));
  button.focus();
  let copied = '';
  document.execCommand = () => {
    copied = (document.activeElement as HTMLTextAreaElement).value;
    return true;
  };
  await copyText('a < b');
  expect([copied, document.activeElement, document.querySelector('textarea')]).toEqual(['a < b', button, null]);
  document.execCommand = () => false;
  await expect(copyText('x')).rejects.toThrow('by hand');
});

test('a clipboard there is, is used', async () => {
  const writeText = vi.fn(async () => undefined);
  vi.stubGlobal('navigator', { clipboard: { writeText } });
  await copyText('a');
  expect(writeText).toHaveBeenCalledWith('a');
});
