import { Folders, StandIns, type TestLine } from '@grivo/contract';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useForm, useWatch } from 'react-hook-form';
import { call, inWords } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { Button, ChoiceWord, Trouble } from '../../design/index.ts';
import { webAddress } from '../../words/address.ts';
import { TestLines } from '../TestLines.tsx';
import { approveAt } from './approve.ts';
import { BlogDraft, type Connected, connectBlog, firstCadence, NeedsMore, NOTHING_TYPED } from './connecting.ts';
import { FolderFields, NetworkFields } from './fields.tsx';
import { WAYS } from './ways.ts';

/** What the stand-ins of a demonstration offer to connect. */
export function useStandIns() {
  return useQuery({
    queryKey: ['stand-ins'],
    queryFn: () => call('GET', '/stand-ins', { answer: StandIns }),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
}

interface ConnectBlogProps {
  onDone?: (id: string, lines: TestLine[]) => void;
  autoFocus?: boolean;
}

/** Connects a blog by one of the ways posts can go to it, and tests it with a harmless draft. */
export function ConnectBlog({ onDone, autoFocus = false }: ConnectBlogProps) {
  const form = useForm<BlogDraft>({ defaultValues: NOTHING_TYPED, resolver: zodResolver(BlogDraft) });
  const way = useWatch({ control: form.control, name: 'way' });
  const connect = useMutation({
    mutationFn: connectBlog,
    onSuccess: ({ id, lines }) => {
      for (const key of ['blogs', 'slots', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
      onDone?.(id, lines);
    },
  });
  const approve = useMutation({
    mutationFn: (address: string) => approveAt({ address: webAddress(address), cadence: firstCadence() }),
  });
  const toApprove = () => {
    const address = form.getValues('address').trim();
    form.clearErrors();
    if (address === '') form.setError('address', { message: 'The address people open in a browser.' });
    else approve.mutate(address);
  };
  const folders = useQuery({
    queryKey: ['blog folders'],
    queryFn: () => call('GET', '/blogs/folders', { answer: Folders }),
    enabled: way === 'folder',
  });
  const asksUser =
    way === 'xml-rpc' || way === 'atom' || (connect.error instanceof NeedsMore && connect.error.asksUser);
  return (
    <form className="max-w-[640px]" onSubmit={form.handleSubmit((draft) => connect.mutate(draft))}>
      <p className="pb-3">
        Posts go there{' '}
        <ChoiceWord
          label="How posts go there"
          value={way}
          options={WAYS}
          onChoose={(chosen) => {
            form.setValue('way', chosen);
            form.clearErrors();
            connect.reset();
          }}
        />
        .
      </p>
      {way === 'folder' ? (
        <FolderFields form={form} folders={folders.data?.folders ?? []} />
      ) : (
        <NetworkFields form={form} asksUser={asksUser} autoFocus={autoFocus} />
      )}
      <div className="flex flex-wrap items-baseline gap-4 pt-3">
        <Button look="solid" type="submit" hint="Enter" busy={connect.isPending ? 'Testing with a draft' : null}>
          Connect and test
        </Button>
        {way === 'found' || way === 'micropub' ? (
          <Button look="line" busy={approve.isPending ? 'Looking where that is' : null} onClick={toApprove}>
            Approve it at the blog instead
          </Button>
        ) : null}
        {way === 'folder' || way === 'hook' ? null : (
          <Offered
            onChoose={(blog) => {
              form.setValue('address', blog.address);
              form.setValue('secret', blog.secret);
              if (blog.user) form.setValue('user', blog.user);
            }}
          />
        )}
      </div>
      {approve.isError ? <Trouble>{inWords(approve.error)}</Trouble> : null}
      {connect.isError ? (
        <Trouble>{connect.error instanceof NeedsMore ? connect.error.message : inWords(connect.error)}</Trouble>
      ) : null}
      {connect.data ? <Came connected={connect.data} /> : null}
    </form>
  );
}

/** What was found otherwise than it was typed, and what the test tried. */
function Came({ connected: { joined, notes, lines } }: { connected: Connected }) {
  return (
    <>
      {joined ? <p className="pt-3 text-small">This blog was connected already: it has the new secret now.</p> : null}
      {notes.map((note) => (
        <p key={note} className="pt-3 text-small">
          {note}
        </p>
      ))}
      <TestLines lines={lines} />
    </>
  );
}

/** The stand-ins of a demonstration, filled in at one press. */
function Offered({ onChoose }: { onChoose: (blog: StandIns['blogs'][number]) => void }) {
  const offered = useStandIns().data?.blogs ?? [];
  if (offered.length === 0) return null;
  return (
    <span className="text-small text-ink-3">
      Stand-ins:{' '}
      {offered.slice(0, 3).map((blog) => (
        <Button key={blog.address} look="quiet" className="mr-3" onClick={() => onChoose(blog)}>
          {blog.name}
        </Button>
      ))}
    </span>
  );
}
