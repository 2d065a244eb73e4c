import { useMutation } from '@tanstack/react-query';
import { inWords } from '../api/call.ts';
import { Trouble } from '../design/index.ts';

/** A word that opens the computer's files; what is chosen is handed over, and it says while that is under way. */
export function FileButton({
  says,
  busy,
  accept,
  many = false,
  onFiles,
}: {
  says: string;
  busy: string;
  accept: string;
  many?: boolean;
  onFiles: (files: File[]) => Promise<unknown>;
}) {
  const take = useMutation({ mutationFn: onFiles });
  return (
    <>
      <label className="act quiet brackets cursor-pointer text-small whitespace-nowrap">
        {take.isPending ? busy : says}
        <input
          type="file"
          className="sr-only"
          accept={accept}
          multiple={many}
          disabled={take.isPending}
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            // The same file can be chosen again after it was mended.
            event.target.value = '';
            if (files.length > 0) take.mutate(files);
          }}
        />
      </label>
      {take.isError ? <Trouble>{inWords(take.error)}</Trouble> : null}
    </>
  );
}
