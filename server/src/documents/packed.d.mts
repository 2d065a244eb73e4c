/** What is wrong with a ZIP file, or null; `most` is what all its members may unpack to, in bytes. */
export function packedProblem(bytes: Uint8Array, most: number): string | null;
