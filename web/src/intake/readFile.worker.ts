import { phrasesOfFile } from './keywordColumn.ts';

self.onmessage = ({ data }: MessageEvent<{ name: string; bytes: ArrayBuffer }>) => {
  self.postMessage(phrasesOfFile(data.name, new Uint8Array(data.bytes)));
};
