// Reads documents in a thread of its own: one that runs away takes only the thread with it.
import { parentPort } from 'node:worker_threads';

const READERS = {
  page: async (_bytes, text) => (await import('./readHtml.mjs')).readHtml(text(), { whole: false }),
  html: async (_bytes, text) => (await import('./readHtml.mjs')).readHtml(text(), { whole: true }),
  pdf: async (bytes) => (await import('./readPdf.mjs')).readPdf(bytes),
  docx: async (bytes) => (await import('./readDocx.mjs')).readDocx(bytes),
  markdown: async (_bytes, text) => (await import('./readMarkdown.mjs')).readMarkdown(text()),
  text: async (_bytes, text) => (await import('./readMarkdown.mjs')).readPlain(text()),
};

parentPort.on('message', async ({ id, kind, bytes, charset }) => {
  let read;
  try {
    read = await READERS[kind](bytes, () => new TextDecoder(charset).decode(bytes));
  } catch (error) {
    read = { problem: `it cannot be read (${error instanceof Error ? error.message : String(error)})` };
  }
  parentPort.postMessage({ id, read });
});
