import { type AccessKey, AccessKeys, KeyMade, type KeyScope } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, ChoiceEditor, Field, Head, Trouble, Word } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { dayLong } from '../words/time.ts';

const SCOPES: { value: KeyScope; says: string; does: string }[] = [
  { value: 'look', says: 'look at everything', does: 'reads what a proofreader may see; changes nothing' },
  { value: 'hand in', says: 'hand subjects in', does: 'reads, puts requests and phrases into sources, and takes them' },
  { value: 'edit', says: 'do what an editor does', does: 'everything but what only an owner may' },
];
const saysOf = (scope: KeyScope) => SCOPES.find(({ value }) => value === scope)!.says;

/** Keys by which other programs use the API: made, shown once, revoked. */
export function Keys() {
  const keys = useQuery({ queryKey: ['keys'], queryFn: () => call('GET', '/keys', { answer: AccessKeys }) });
  const [name, setName] = useState('');
  const [scope, setScope] = useState<KeyScope>('hand in');
  const [until, setUntil] = useState('');
  const again = () => void queryClient.invalidateQueries({ queryKey: ['keys'] });
  const make = useMutation({
    mutationFn: () => call('POST', '/keys', { body: { name, scope, until: until || null }, answer: KeyMade }),
    onSuccess: () => {
      setName('');
      setUntil('');
      again();
    },
  });
  const revoke = useMutation({ mutationFn: (id: string) => call('DELETE', `/keys/${id}`), onSuccess: again });
  const list = keys.data?.keys ?? [];
  const ended = ({ revoked, ends }: AccessKey) => revoked !== null || (ends !== null && Date.parse(ends) < Date.now());
  const good = list.filter((key) => !ended(key));
  return (
    <section aria-label="Keys for programs">
      <Head title="Keys for programs" right={plural(good.length, 'key')} />
      <ul className="text-small">
        {list.map((key) => (
          <li key={key.id} className="flex items-baseline gap-3 border-b border-rule-soft py-1">
            {ended(key) ? <s>{key.name}</s> : <span className="font-medium">{key.name}</span>}
            <span className="text-ink-3">
              may {saysOf(key.scope)}, by {key.by},{' '}
              {key.revoked !== null
                ? `revoked ${dayLong(Date.parse(key.revoked))}`
                : key.used === null
                  ? 'never used'
                  : `used ${dayLong(Date.parse(key.used))}`}
              {key.revoked === null && key.ends !== null
                ? `; ${ended(key) ? 'ended' : 'good until'} ${dayLong(Date.parse(key.ends))}`
                : ''}
            </span>
            {key.revoked === null ? (
              <Button look="quiet" className="ml-auto" onClick={() => revoke.mutate(key.id)}>
                Revoke
              </Button>
            ) : null}
          </li>
        ))}
      </ul>
      {make.data ? (
        <p className="border-b border-rule-soft py-2 text-small" role="status">
          The key, shown this once; keep it where the program can read it:
          <code className="fig block break-all">{make.data.key}</code>
        </p>
      ) : null}
      <form
        className="flex flex-wrap items-end gap-3 pt-2"
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          if (name.trim() !== '') make.mutate();
        }}
      >
        <div className="w-44">
          <Field label="For which program" value={name} onChange={(event) => setName(event.target.value)} />
        </div>
        <div className="w-36">
          <Field
            label="Last day, if any"
            type="date"
            value={until}
            onChange={(event) => setUntil(event.target.value)}
          />
        </div>
        <span className="pb-1.5 text-small whitespace-nowrap">
          may{' '}
          <Word
            label="What it may do"
            editor={(close) => (
              <ChoiceEditor
                value={scope}
                options={SCOPES}
                onChoose={(value) => {
                  setScope(value as KeyScope);
                  close();
                }}
              />
            )}
          >
            {saysOf(scope)}
          </Word>
        </span>
        <Button type="submit" look="line" disabled={name.trim() === ''} busy={make.isPending ? 'Making' : null}>
          Make a key
        </Button>
      </form>
      {make.isError || revoke.isError || keys.isError ? (
        <Trouble>{inWords(make.error ?? revoke.error ?? keys.error)}</Trouble>
      ) : null}
    </section>
  );
}
