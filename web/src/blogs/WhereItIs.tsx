import { type Blog, ChangedBlog, type FolderSettings, LOOK_AS_MADE, TestLog } from '@grivo/contract';
import { languageName } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { useWords } from '../api/useWords.ts';
import { Button, ChoiceWord, DoneHere, Field, Head, NumberOnce, TextWord, Trouble, Word } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { approveAt } from './connect/approve.ts';
import { FORMS, HEADS } from './connect/folderWords.ts';
import { BY_WAY } from './connect/ways.ts';
import { FolderLookWords } from './FolderLookWords.tsx';

const change = async (id: string, body: object) => {
  const { blogs } = await call('PATCH', `/blogs/${id}`, { body, answer: ChangedBlog });
  queryClient.setQueryData(['blogs'], { blogs });
};

/** Where a blog is and how posts go there, in sentences whose words are changed in place. */
export function WhereItIs({ blog }: { blog: Blog }) {
  const { way, endpoint, mediaEndpoint, settings } = blog;
  const limit = useWords({ timeLimitMs: blog.timeLimitMs, callsAtOnce: settings.callsAtOnce ?? 4 }, (words) =>
    change(blog.id, words),
  );
  return (
    <>
      <Head title="Where it is" />
      <p className="pt-2 text-proc">
        {way === 'folder' ? 'Posts are written to ' : 'Posts go to '}
        <span className="break-all text-ink-2">{endpoint}</span>
        {way !== 'folder' && mediaEndpoint && mediaEndpoint !== endpoint ? (
          <>
            , pictures to <span className="break-all text-ink-2">{mediaEndpoint}</span>
          </>
        ) : null}
        , {BY_WAY[way]}
        {settings.user ? (
          <>
            {' '}
            as <span className="text-ink-2">{settings.user}</span>
          </>
        ) : null}
        , in {languageName(blog.language)}
        {way === 'folder' ? null : <Limits words={limit.words} put={limit.put} />}.{' '}
        <a href={blog.address} target="_blank" rel="noreferrer" className="act brackets">
          Open it
        </a>
      </p>
      {limit.error ? <Trouble>{inWords(limit.error)}</Trouble> : null}
      {settings.folder ? <HowFilesAre id={blog.id} folder={settings.folder} /> : null}
      {way === 'folder' ? null : <Secret id={blog.id} user={settings.user ?? null} approves={way === 'micropub'} />}
    </>
  );
}

interface Limited {
  timeLimitMs: number;
  callsAtOnce: number;
}

/** How long it may take for a call, and how many it gets at the same time. */
function Limits({ words, put }: { words: Limited; put: (change: Partial<Limited>) => void }) {
  return (
    <>
      , given{' '}
      <Word
        label="Time limit"
        editor={(close) => (
          <NumberOnce
            value={words.timeLimitMs / 1_000}
            least={1}
            most={120}
            unit="seconds"
            onPut={(seconds) => put({ timeLimitMs: seconds * 1_000 })}
            close={close}
          />
        )}
      >
        {words.timeLimitMs / 1_000} s
      </Word>{' '}
      to act, at most{' '}
      <Word
        label="Calls at the same time"
        editor={(close) => (
          <NumberOnce
            value={words.callsAtOnce}
            least={1}
            most={20}
            unit="calls at the same time, of each worker"
            onPut={(callsAtOnce) => put({ callsAtOnce })}
            close={close}
          />
        )}
      >
        {plural(words.callsAtOnce, 'call')}
      </Word>{' '}
      at the same time
    </>
  );
}

const STANDS =
  '{slug} is the end of its address, made of its title; {date}, {year} and {month} say when it was written.';
const HINTS = { file: STANDS, link: `After the address of the blog. ${STANDS}`, pictures: 'A path in the folder.' };

/** How a folder is written from now on. */
function HowFilesAre({ id, folder }: { id: string; folder: FolderSettings }) {
  const { words, put, error } = useWords(folder, (folder) => change(id, { folder }));
  const text = (label: string, name: 'file' | 'link' | 'pictures') => (
    <TextWord label={label} value={words[name]} hint={HINTS[name]} onPut={(said) => put({ [name]: said })}>
      {words[name]}
    </TextWord>
  );
  return (
    <p className="pt-3 text-proc">
      Posts are{' '}
      <ChoiceWord label="What posts are" value={words.form} options={FORMS} onChoose={(form) => put({ form })} />
      {words.form === 'Markdown' ? (
        <>
          , with front matter in{' '}
          <ChoiceWord
            label="How front matter is written"
            value={words.head}
            options={HEADS}
            onChoose={(head) => put({ head })}
          />
        </>
      ) : null}
      , in files named {text('Name of each file', 'file')}, read at {text('Address of each post', 'link')}; pictures lie
      in {text('Where pictures lie', 'pictures')};{' '}
      <ChoiceWord
        label="Pages beside them"
        value={words.pages ? 'yes' : 'no'}
        options={[
          { value: 'yes', says: 'a front page, a feed and a sitemap are kept', does: 'made anew after every act' },
          { value: 'no', says: 'nothing is made beside them', does: 'the program that makes the site does it' },
        ]}
        onChoose={(said) => put({ pages: said === 'yes' })}
      />
      ;{' '}
      <ChoiceWord
        label="Commits"
        value={words.commits ? 'yes' : 'no'}
        options={[
          { value: 'yes', says: 'every act is committed', does: 'with git, and pushed where the folder has a remote' },
          { value: 'no', says: 'nothing is committed', does: 'files only' },
        ]}
        onChoose={(said) => put({ commits: said === 'yes' })}
      />
      .
      {words.pages || words.form === 'HTML' ? (
        <FolderLookWords look={words.look ?? LOOK_AS_MADE} onPut={(look) => put({ look })} />
      ) : null}
      <span className="block pt-1 text-small text-ink-3">
        What is written already stays as it is, but for how its pages look. In .grivo there Grivo keeps what it wrote,
        drafts of pages too: a web server should not show folders whose names begin with a dot.
      </span>
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
    </p>
  );
}

function Secret({ id, user, approves }: { id: string; user: string | null; approves: boolean }) {
  const approve = useMutation({ mutationFn: () => approveAt({ blog: id }) });
  const [open, setOpen] = useState(false);
  const [secret, setSecret] = useState('');
  const [name, setName] = useState(user ?? '');
  const put = useMutation({
    mutationFn: () =>
      call('PUT', `/blogs/${id}/secret`, {
        body: { secret, ...(user === null ? {} : { user: name }) },
        answer: TestLog,
      }),
    onSuccess: () => {
      setSecret('');
      setOpen(false);
      void queryClient.invalidateQueries({ queryKey: ['blogs'] });
    },
  });
  if (!open)
    return (
      <div className="flex flex-wrap gap-x-4 py-3">
        <Button look="word" onClick={() => setOpen(true)}>
          Give it a new secret
        </Button>
        {approves ? (
          <Button
            look="word"
            busy={approve.isPending ? 'Looking where that is' : null}
            onClick={() => approve.mutate()}
          >
            Approve it again at the blog
          </Button>
        ) : null}
        {approve.isError ? <Trouble>{inWords(approve.error)}</Trouble> : null}
        {put.data ? (
          <DoneHere>
            {put.data.lines.every(({ well }) => well)
              ? 'Saved and tested: it works.'
              : 'Saved and tested: see below what is wrong.'}
          </DoneHere>
        ) : null}
      </div>
    );
  return (
    <form
      className="flex items-end gap-3 py-3"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        put.mutate();
      }}
    >
      {user === null ? null : (
        <div className="w-36">
          <Field label="User name" autoComplete="off" value={name} onChange={(event) => setName(event.target.value)} />
        </div>
      )}
      <div className="flex-1">
        <Field
          label="New secret"
          type="password"
          autoComplete="off"
          required
          autoFocus
          value={secret}
          onChange={(event) => setSecret(event.target.value)}
          wrong={put.isError ? inWords(put.error) : null}
        />
      </div>
      <Button look="line" type="submit" busy={put.isPending ? 'Testing with a draft' : null}>
        Save and test it
      </Button>
    </form>
  );
}
