// @vitest-environment jsdom
import { afterEach, expect, test, vi } from 'vitest';
import { copyRich, copyText } from './copy.ts';

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

test('a text with its looks is handed over in both forms, also where the browser hands out no clipboard', async () => {
  const write = vi.fn(async (_: unknown[]) => undefined);
  vi.stubGlobal('navigator', { clipboard: { write } });
  vi.stubGlobal(
    'ClipboardItem',
    class {
      constructor(readonly held: Record<string, Blob>) {}
    },
  );
  await copyRich('<p>a</p>', 'a');
  const [[[item]]] = write.mock.calls as unknown as [[[{ held: Record<string, Blob> }]]];
  expect(Object.keys(item.held)).toEqual(['text/html', 'text/plain']);
  vi.stubGlobal('navigator', {});
  const held: Record<string, string> = {};
  document.execCommand = () => {
    const event = new Event('copy') as unknown as { clipboardData: object };
    Object.defineProperty(event, 'clipboardData', {
      value: { setData: (type: string, text: string) => (held[type] = text) },
    });
    return document.dispatchEvent(event as unknown as Event) || true;
  };
  await copyRich('<p>b</p>', 'b');
  expect(held).toEqual({ 'text/html': '<p>b</p>', 'text/plain': 'b' });
  document.execCommand = () => false;
  await expect(copyRich('x', 'x')).rejects.toThrow('open the HTML');
});
