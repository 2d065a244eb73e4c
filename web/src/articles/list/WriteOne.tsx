import { type Blog, BriefWhole, Made } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call, inWords } from '../../api/call.ts';
import { freshKey } from '../../api/fresh.ts';
import { queryClient } from '../../api/queries.ts';
import { Button, ChoiceWord, Field, TextArea, Trouble, useMay } from '../../design/index.ts';

/** How often, and how long apart, it is looked whether the text is laid out. */
const LOOKS = 60;
const APART_MS = 250;

/** The article a brief is for, once its text is laid out. */
async function articleOf(brief: string): Promise<string> {
  for (let i = 0; i < LOOKS; i++) {
    const { standing, articles } = await call('GET', `/briefs/${brief}`, { answer: BriefWhole });
    if (standing === 'held' && articles[0]) return articles[0].id;
    await new Promise((resolve) => setTimeout(resolve, APART_MS));
  }
  throw new Error('It takes longer than usual; it will stand among those that wait for you.');
}

/** An article of one's own: begun here with its title and first words, and written on its page. */
export function WriteOne({ blogs }: { blogs: readonly Blog[] }) {
  const may = useMay();
  const [open, setOpen] = useState(false);
  if (!may || blogs.length === 0) return null;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button look="line">Write one yourself…</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-paper/80" />
        <Dialog.Content
          aria-describedby={undefined}
          className="pop fixed top-[12vh] left-1/2 z-50 flex w-[640px] max-w-[94vw] -translate-x-1/2 flex-col gap-3"
        >
          <Dialog.Title className="text-head font-semibold">An article of your own</Dialog.Title>
          <Begin blogs={blogs} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Makes an article of what was typed, and leads to it. */
function useMake() {
  const go = useNavigate();
  return useMutation({
    mutationFn: async (body: { blog: string; title: string; text: string }) => {
      const { id } = await call('POST', '/articles', { body, answer: Made, key: freshKey() });
      return articleOf(id);
    },
    onSuccess: (id) => {
      for (const key of ['articles', 'pipelines', 'sources', 'today'])
        void queryClient.invalidateQueries({ queryKey: [key] });
      void go(`/articles/${id}?edit`);
    },
  });
}

function Begin({ blogs }: { blogs: readonly Blog[] }) {
  const [blog, setBlog] = useState(blogs[0]!.id);
  const [title, setTitle] = useState('');
  const [text, setText] = useState('');
  const make = useMake();
  const ready = title.trim() !== '' && text.trim() !== '';
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) make.mutate({ blog, title, text });
      }}
    >
      <p>
        For{' '}
        <ChoiceWord
          label="Blog"
          value={blog}
          options={blogs.map(({ id, name, language }) => ({ value: id, says: name, does: `in ${language}` }))}
          onChoose={setBlog}
        />
        . It waits for your word, and goes out in a slot of the blog once you pass it.
      </p>
      <Field label="Title" autoFocus value={title} onChange={(event) => setTitle(event.target.value)} />
      <TextArea
        label="Its first words, or all of it; Markdown is read"
        rows={8}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="flex items-center gap-4">
        <Button look="solid" type="submit" disabled={!ready} busy={make.isPending ? 'Laying it out' : null}>
          Begin
        </Button>
        <Dialog.Close asChild>
          <Button look="quiet" anyone>
            Not now
          </Button>
        </Dialog.Close>
      </div>
      {make.isError ? (
        <Trouble>{make.error.message.startsWith('It takes') ? make.error.message : inWords(make.error)}</Trouble>
      ) : null}
    </form>
  );
}
