import { useMutation } from '@tanstack/react-query';
import { fetchFile, inWords } from '../api/call.ts';
import { Button } from '../design/index.ts';
import { saveAs } from '../words/saveAs.ts';

const FORMS = [
  ['Word', 'docx', 'copy?as=Word'],
  ['PDF', 'pdf', 'copy?as=PDF'],
  ['HTML', 'html', 'copy?as=HTML%20page'],
  ['text', 'txt', 'text?as=plain'],
  ['JSON', 'json', 'text?as=json'],
] as const;

/** Saves an article as a file of a form that is made by the server. */
export function SaveCopy({ id, title }: { id: string; title: string }) {
  const save = useMutation({
    mutationFn: async ([, ending, path]: (typeof FORMS)[number]) =>
      saveAs(await fetchFile(`/articles/${id}/${path}`), `${fileName(title)}.${ending}`),
  });
  return (
    <span className="flex items-baseline gap-3">
      {save.isError ? (
        <span role="alert" className="text-red">
          {inWords(save.error)}
        </span>
      ) : (
        'save as'
      )}
      {FORMS.map((form) => (
        <Button
          key={form[0]}
          look="word"
          aria-label={`Save as ${form[0]}`}
          busy={save.isPending && save.variables === form ? 'Making it' : null}
          onClick={() => save.mutate(form)}
        >
          {form[0]}
        </Button>
      ))}
    </span>
  );
}

/** A title as the name of a file. */
export function fileName(title: string): string {
  return (
    title
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'article'
  );
}
