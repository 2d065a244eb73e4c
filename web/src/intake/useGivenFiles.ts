import type { DocumentSettings, RecordingSettings, SourceWhole } from '@grivo/contract';
import { uploadAll } from './uploads.ts';
import { useChange, useLook } from './useSource.ts';

/** Uploads files into a source that holds some, each once, and looks at it, so that they are there. */
export function useGivenFiles(
  source: SourceWhole,
  settings: DocumentSettings | RecordingSettings,
): (files: File[]) => Promise<void> {
  const change = useChange(source);
  const look = useLook(source.id);
  return async (files) => {
    const given = await uploadAll(files);
    const there = new Set(settings.files.map(({ file }) => file));
    const added = given.filter(({ file }) => !there.has(file));
    await change.mutateAsync({ ...settings, files: [...settings.files, ...added] });
    await look.mutateAsync();
  };
}
