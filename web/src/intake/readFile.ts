import type { FilePhrase } from './filePhrase.ts';

/** Phrases of a file, with the words for the column they came from. */
export interface KeywordFile {
  phrases: FilePhrase[];
  column: string;
}

const MOST_BYTES = 20_000_000;

/** Reads a CSV, TSV or text file in a worker, so that the page goes on while a long one is read. */
export async function readKeywordFile(file: File): Promise<KeywordFile> {
  if (file.size > MOST_BYTES)
    throw new Error(
      `${file.name} is ${Math.round(file.size / 1_000_000)} MB; at most 20 MB are read. Split it and read the parts.`,
    );
  if (file.size === 0) throw new Error(`${file.name} is empty. Choose a file with phrases in it.`);
  const worker = new Worker(new URL('./readFile.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await new Promise<KeywordFile>((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<KeywordFile | { failed: string }>) =>
        'failed' in data ? reject(new Error(data.failed)) : resolve(data);
      worker.onerror = () => reject(new Error(`${file.name} could not be read.`));
      file.arrayBuffer().then((bytes) => worker.postMessage({ name: file.name, bytes }, [bytes]), reject);
    });
  } finally {
    worker.terminate();
  }
}
