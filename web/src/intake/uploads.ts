import { type GivenFile, Uploaded } from '@grivo/contract';
import { call } from '../api/call.ts';

/** Uploads files one after the other; each under the name it had. */
export async function uploadAll(files: Iterable<File>): Promise<GivenFile[]> {
  const out: GivenFile[] = [];
  for (const file of files) {
    const { file: digest } = await call('POST', '/uploads?mime=application/octet-stream', { file, answer: Uploaded });
    if (!out.some((one) => one.file === digest)) out.push({ file: digest, fileName: file.name.slice(0, 200) });
  }
  return out;
}

/** Addresses of a text, as people paste them. */
export function addressesIn(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[\s,;]+/)
        .map((part) => part.replace(/^[<("']+|(?<![>)"'.])[>)"'.]+$/g, ''))
        .filter((part) => /^https?:\/\/\S+$/i.test(part) && URL.canParse(part)),
    ),
  ];
}
