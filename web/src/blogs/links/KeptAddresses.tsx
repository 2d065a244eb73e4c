import { type KeptAddressLine, Made } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { Button, Empty, Field, Head, TextWord, Trouble } from '../../design/index.ts';
import { count } from '../../words/figures.ts';
import { addressProblem } from './RuleSentence.tsx';
import { linksChanged, shortAddress } from './useLinks.ts';

const KINDS = {
  own: {
    title: 'Our own addresses',
    empty: 'None yet. Keep pages of yours here that no sitemap lists, with what each is good for.',
    placeholder: 'https://our-shop.example/ask',
  },
  outside: {
    title: 'Trusted outside',
    empty: 'None yet. Pages and sites of others that articles may link to, with what each is good for.',
    placeholder: 'https://food-lab.example',
  },
} as const;

/** Addresses kept for linking, with what they are good for; steps that link choose among them. */
export function KeptAddresses({
  blog,
  kind,
  addresses,
}: {
  blog: string;
  kind: 'own' | 'outside';
  addresses: readonly KeptAddressLine[];
}) {
  const { title, empty, placeholder } = KINDS[kind];
  return (
    <section className="min-w-0 pt-5">
      <Head title={title} right="good for, links to it" />
      {addresses.length === 0 ? <Empty>{empty}</Empty> : null}
      <ul>
        {addresses.map((one) => (
          <KeptLine key={one.id} one={one} blog={blog} />
        ))}
      </ul>
      <Keep blog={blog} kind={kind} placeholder={placeholder} />
    </section>
  );
}

function KeptLine({ one, blog }: { one: KeptAddressLine; blog: string }) {
  const { id, rev, address, goodFor } = one;
  const change = useMutation({
    mutationFn: (next: { address?: string; goodFor?: string }) =>
      call('PUT', `/kept-addresses/${id}`, { body: { blog: one.blog, address, goodFor, ...next }, rev }),
    onSettled: () => linksChanged(blog),
  });
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/kept-addresses/${id}`),
    onSettled: () => linksChanged(blog),
  });
  return (
    <li className="border-b border-rule-soft py-1.5 text-small">
      <div className="flex items-baseline gap-3">
        <span className="fig min-w-0 flex-1 truncate" title={address}>
          {shortAddress(address, 30)}
        </span>
        <span className="fig">{count(one.links)}</span>
        <button
          type="button"
          className="act quiet brackets"
          aria-label={`Remove: ${shortAddress(address)}`}
          onClick={() => remove.mutate()}
        >
          Remove
        </button>
      </div>
      <TextWord
        label="What it is good for"
        value={goodFor}
        hint="Subjects with commas between; words that say one of them are linked."
        onPut={(text) => text !== '' && change.mutate({ goodFor: text })}
      >
        {goodFor}
      </TextWord>
      {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      {remove.isError ? <Trouble>{inWords(remove.error)}</Trouble> : null}
    </li>
  );
}

function Keep({ blog, kind, placeholder }: { blog: string; kind: 'own' | 'outside'; placeholder: string }) {
  const [address, setAddress] = useState('');
  const [goodFor, setGoodFor] = useState('');
  const [tried, setTried] = useState(false);
  const keep = useMutation({
    mutationFn: () =>
      call('POST', '/kept-addresses', {
        body: { blog, kind, address: address.trim(), goodFor: goodFor.trim() },
        answer: Made,
      }),
    onSuccess: () => {
      setAddress('');
      setGoodFor('');
      setTried(false);
      return linksChanged(blog);
    },
  });
  return (
    <form
      className="flex flex-col gap-2 pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        setTried(true);
        if (goodFor.trim() !== '' && addressProblem(address) === null) keep.mutate();
      }}
    >
      <Field
        label="Address"
        inputMode="url"
        placeholder={placeholder}
        value={address}
        wrong={tried && address.trim() !== '' ? addressProblem(address) : null}
        onChange={(event) => setAddress(event.target.value)}
      />
      <Field label="Good for" maxLength={300} value={goodFor} onChange={(event) => setGoodFor(event.target.value)} />
      <div>
        <Button
          look="line"
          type="submit"
          busy={keep.isPending ? 'Keeping' : null}
          disabled={address.trim() === '' || goodFor.trim() === ''}
        >
          Keep it
        </Button>
      </div>
      {keep.isError ? <Trouble>{inWords(keep.error)}</Trouble> : null}
    </form>
  );
}
