import { FoundEndpoint, MadeBlog, StandIns, type TestLine } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Field, Trouble } from '../design/index.ts';
import { webAddress } from '../words/address.ts';
import { TestLines } from './TestLines.tsx';

/** What the stand-ins of a demonstration offer to connect. */
export function useStandIns() {
  return useQuery({
    queryKey: ['stand-ins'],
    queryFn: () => call('GET', '/stand-ins', { answer: StandIns }),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
}

/** Five a week in the morning: a cadence to begin with, changed in a sentence later. */
function firstCadence() {
  return {
    rate: { kind: 'count', n: 5, per: 'week' },
    days: [1, 2, 3, 4, 5],
    hours: { from: '08:00', to: '10:00' },
    gapMinutes: 240,
    start: '2024-01-01',
    pauses: [],
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
  };
}

/** Looks at an address for where the blog takes posts, and connects it there. */
async function findAndConnect(address: string, secret: string) {
  const found = await call('POST', '/blogs/find', { body: { address }, answer: FoundEndpoint });
  return call('POST', '/blogs', {
    body: {
      name: found.name?.slice(0, 120) || new URL(found.address).hostname,
      address: found.address.replace(/\/$/, ''),
      endpoint: found.endpoint ?? address,
      secret,
      language: found.language ?? 'en',
      cadence: firstCadence(),
    },
    answer: MadeBlog,
  });
}

interface ConnectBlogProps {
  onDone?: (id: string, lines: TestLine[]) => void;
  autoFocus?: boolean;
}

/** Connects a blog from its address and its secret, and tests it with a harmless draft. */
export function ConnectBlog({ onDone, autoFocus = false }: ConnectBlogProps) {
  const [address, setAddress] = useState('');
  const [secret, setSecret] = useState('');
  const connect = useMutation({
    mutationFn: () => findAndConnect(webAddress(address), secret),
    onSuccess: ({ id, lines }) => {
      for (const key of ['blogs', 'slots', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
      onDone?.(id, lines);
    },
  });
  return (
    <form
      className="max-w-[560px]"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        connect.mutate();
      }}
    >
      <div className="grid grid-cols-2 gap-4">
        <Field
          label="Address of the blog"
          placeholder="https://your-shop.example/blog"
          required
          autoFocus={autoFocus}
          value={address}
          onChange={(event) => setAddress(event.target.value)}
        />
        <Field
          label="Its secret"
          type="password"
          autoComplete="off"
          required
          value={secret}
          onChange={(event) => setSecret(event.target.value)}
          hint="An access token that may create, update and delete posts."
        />
      </div>
      <div className="flex flex-wrap items-baseline gap-4 pt-3">
        <Button look="solid" type="submit" hint="Enter" busy={connect.isPending ? 'Testing with a draft' : null}>
          Connect and test
        </Button>
        <Offered
          onChoose={(blog) => {
            setAddress(blog.address);
            setSecret(blog.secret);
          }}
        />
      </div>
      {connect.isError ? <Trouble>{inWords(connect.error)}</Trouble> : null}
      {connect.data?.joined ? (
        <p className="pt-3 text-small">This blog was connected already: it has the new secret now.</p>
      ) : null}
      {connect.data ? <TestLines lines={connect.data.lines} /> : null}
    </form>
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
