import { Made, type Rule, type RuleFields, RulesRead } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { Button, Empty, Field, Head, Loading, Trouble } from '../../design/index.ts';
import { FileButton } from '../../intake/FileButton.tsx';
import { count, plural } from '../../words/figures.ts';
import { addressProblem, RuleSentence } from './RuleSentence.tsx';
import { linksChanged, linksRead, shortAddress, times } from './useLinks.ts';

const MANY = 20;

const useRemove = (blog: string) =>
  useMutation({
    mutationFn: (id: string) => call('POST', '/link-rules/remove', { body: { ids: [id] } }),
    onSettled: () => linksChanged(blog),
  });

/** Words that are linked wherever articles say them: partners, brands, our own shop. */
export function RuleList({ blog }: { blog: string }) {
  const [find, setFind] = useState('');
  const [from, setFrom] = useState(0);
  const [open, setOpen] = useState<string | null>(null);
  const rules = useQuery(linksRead.rules(blog, useDeferredValue(find), from));
  const remove = useRemove(blog);
  const data = rules.data;
  return (
    <section>
      <Head
        title="Link rules"
        right={
          <>
            {data ? `${count(data.total)} ` : ''}
            <InAndOut blog={blog} />
          </>
        }
      />
      {data && data.total > MANY ? (
        <div className="max-w-80 pt-2">
          <Field
            label="Find a rule by its words or address"
            value={find}
            onChange={(event) => {
              setFind(event.target.value);
              setFrom(0);
            }}
          />
        </div>
      ) : null}
      {rules.isError ? <Trouble>{inWords(rules.error)}</Trouble> : null}
      {rules.isPending ? <Loading rows={4} /> : null}
      {data?.total === 0 ? (
        <Empty>
          None yet. A rule links words wherever your articles say them: a partner’s product, a brand, your own shop.
        </Empty>
      ) : null}
      {data && data.rules.length > 0 ? (
        <table className="w-full table-fixed">
          {HEADS}
          {data.rules.map((rule) => (
            <RuleRow
              key={rule.id}
              rule={rule}
              blog={blog}
              isOpen={open === rule.id}
              onOpen={() => setOpen(open === rule.id ? null : rule.id)}
              onRemove={() => remove.mutate(rule.id)}
            />
          ))}
        </table>
      ) : null}
      {data && data.total > 0 && data.found === 0 ? <p className="py-2 text-small">No rule has that in it.</p> : null}
      {remove.isError ? <Trouble>{inWords(remove.error)}</Trouble> : null}
      <More data={data} from={from} setFrom={setFrom} />
      <NewRule blog={blog} onMade={setOpen} />
    </section>
  );
}

const HEADS = (
  <thead>
    <tr className="h-6 border-b border-rule-soft text-left text-small text-ink-3">
      <th className="w-[30%] pl-3 font-normal">words</th>
      <th className="font-normal">lead to</th>
      <th className="w-20 font-normal">at most</th>
      <th className="w-24 font-normal">marked</th>
      <th className="w-16 pr-3 text-right font-normal">placed</th>
    </tr>
  </thead>
);

function More({
  data,
  from,
  setFrom,
}: {
  data: { found: number; rules: readonly Rule[]; next: number | null } | undefined;
  from: number;
  setFrom: (n: number) => void;
}) {
  if (!data || (data.next === null && from === 0)) return null;
  return (
    <p className="flex gap-4 pt-2 text-small text-ink-3">
      {count(from + 1)} to {count(from + data.rules.length)} of {count(data.found)}
      {from > 0 ? (
        <button type="button" className="act quiet brackets" onClick={() => setFrom(Math.max(0, from - 100))}>
          Those before
        </button>
      ) : null}
      {data.next !== null ? (
        <button type="button" className="act quiet brackets" onClick={() => setFrom(data.next!)}>
          Those after
        </button>
      ) : null}
    </p>
  );
}

function RuleRow({
  rule,
  blog,
  isOpen,
  onOpen,
  onRemove,
}: {
  rule: Rule;
  blog: string;
  isOpen: boolean;
  onOpen: () => void;
  onRemove: () => void;
}) {
  return (
    <tbody className={isOpen ? 'bg-wash' : ''}>
      <tr className="h-7 border-b border-rule-soft align-middle text-small">
        <td className="truncate pl-3 text-proc font-medium">
          <button
            type="button"
            className="act brackets max-w-full truncate"
            aria-expanded={isOpen}
            title={rule.words}
            onClick={onOpen}
          >
            {rule.words}
          </button>
        </td>
        <td className="truncate fig" title={rule.address}>
          {shortAddress(rule.address, 28)}
        </td>
        <td>{times(rule.most)}</td>
        <td className="truncate">{rule.sponsored ? 'sponsored' : 'plain'}</td>
        <td className="pr-3 text-right fig">{count(rule.placed)}</td>
      </tr>
      {isOpen ? (
        <tr className="border-b border-rule-soft">
          <td colSpan={5}>
            <RuleSentence rule={rule} blog={blog} onRemove={onRemove} />
          </td>
        </tr>
      ) : null}
    </tbody>
  );
}

const FRESH: Omit<RuleFields, 'blog' | 'words' | 'address'> = {
  most: 1,
  placing: 'first',
  after: 0,
  forms: true,
  anyCase: true,
  sponsored: true,
};

function NewRule({ blog, onMade }: { blog: string; onMade: (id: string) => void }) {
  const [words, setWords] = useState('');
  const [address, setAddress] = useState('');
  const [tried, setTried] = useState(false);
  const wrong = tried && address.trim() !== '' ? addressProblem(address) : null;
  const make = useMutation({
    mutationFn: () =>
      call('POST', '/link-rules', {
        body: { ...FRESH, blog, words: words.trim(), address: address.trim() },
        answer: Made,
      }),
    onSuccess: async ({ id }) => {
      setWords('');
      setAddress('');
      setTried(false);
      await linksChanged(blog);
      onMade(id);
    },
  });
  return (
    <form
      className="flex flex-wrap items-end gap-3 pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        setTried(true);
        if (words.trim() !== '' && addressProblem(address) === null) make.mutate();
      }}
    >
      <div className="w-44">
        <Field label="Words" maxLength={120} value={words} onChange={(event) => setWords(event.target.value)} />
      </div>
      <div className="min-w-60 flex-1">
        <Field
          label="Lead to"
          type="text"
          inputMode="url"
          placeholder="https://"
          value={address}
          wrong={wrong}
          onChange={(event) => setAddress(event.target.value)}
        />
      </div>
      <Button
        look="line"
        type="submit"
        busy={make.isPending ? 'Adding' : null}
        disabled={words.trim() === '' || address.trim() === ''}
      >
        Add a rule
      </Button>
      {make.isError ? <Trouble>{inWords(make.error)}</Trouble> : null}
    </form>
  );
}

/** Rules as a file: read from one, written to one. */
function InAndOut({ blog }: { blog: string }) {
  const [read, setRead] = useState<RulesRead | null>(null);
  return (
    <span className="inline-flex flex-wrap items-baseline gap-3 pl-2">
      <FileButton
        says="Read a CSV"
        busy="Reading"
        accept=".csv,.tsv,.txt,text/csv"
        onFiles={async ([file]) => {
          const text = await file!.text();
          setRead(
            await call('POST', `/blogs/${blog}/links/rules.csv`, {
              body: { text, everyBlog: false },
              answer: RulesRead,
            }),
          );
          await linksChanged(blog);
        }}
      />
      <a
        className="act quiet brackets text-small"
        href={`/api/blogs/${blog}/links/rules.csv`}
        download="link-rules.csv"
      >
        Write one
      </a>
      {read ? <ReadInWords read={read} /> : null}
    </span>
  );
}

function ReadInWords({ read: { added, known, unread } }: { read: RulesRead }) {
  const [first] = unread;
  return (
    <span role="status" className="basis-full text-right text-small">
      {plural(added, 'rule')} added{known > 0 ? `, ${count(known)} were there already` : ''}
      {first ? (
        <span className="wrong">
          {' '}
          {unread.length === 1 ? 'One line' : `${count(unread.length)} lines`} not read; line {first.line}: {first.why}.
        </span>
      ) : (
        '.'
      )}
    </span>
  );
}
