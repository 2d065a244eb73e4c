import { type AccessKey, AccessKeys, KeyMade, type KeyScope } from '@grivo/contract';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, ChoiceWord, Field, Head, Trouble } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { dayLong } from '../words/time.ts';

const SCOPES: { value: KeyScope; says: string; does: string }[] = [
  { value: 'look', says: 'look at everything', does: 'reads what a proofreader may see; changes nothing' },
  { value: 'hand in', says: 'hand subjects in', does: 'reads, puts requests and phrases into sources, and takes them' },
  { value: 'edit', says: 'do what an editor does', does: 'everything but what only an owner may' },
];
const saysOf = (scope: KeyScope) => SCOPES.find(({ value }) => value === scope)!.says;

const hasEnded = ({ revoked, ends }: AccessKey) => revoked !== null || (ends !== null && Date.parse(ends) < Date.now());
const again = () => void queryClient.invalidateQueries({ queryKey: ['keys'] });

/** Keys by which other programs use the API: made, shown once, revoked. */
export function Keys() {
  const keys = useQuery({ queryKey: ['keys'], queryFn: () => call('GET', '/keys', { answer: AccessKeys }) });
  const revoke = useMutation({ mutationFn: (id: string) => call('DELETE', `/keys/${id}`), onSuccess: again });
  const list = keys.data?.keys ?? [];
  return (
    <section aria-label="Keys for programs">
      <Head title="Keys for programs" right={plural(list.filter((key) => !hasEnded(key)).length, 'key')} />
      <ul className="text-small">
        {list.map((key) => (
          <KeyLine key={key.id} it={key} onRevoke={() => revoke.mutate(key.id)} />
        ))}
      </ul>
      <NewKey />
      {revoke.isError || keys.isError ? <Trouble>{inWords(revoke.error ?? keys.error)}</Trouble> : null}
    </section>
  );
}

function KeyLine({ it, onRevoke }: { it: AccessKey; onRevoke: () => void }) {
  const { name, scope, by, revoked, used, ends } = it;
  const day = (at: string) => dayLong(Date.parse(at));
  const use = revoked !== null ? `revoked ${day(revoked)}` : used === null ? 'never used' : `used ${day(used)}`;
  return (
    <li className="flex items-baseline gap-3 border-b border-rule-soft py-1">
      {hasEnded(it) ? <s>{name}</s> : <span className="font-medium">{name}</span>}
      <span className="text-ink-3">
        may {saysOf(scope)}, by {by}, {use}
        {revoked === null && ends !== null ? `; ${hasEnded(it) ? 'ended' : 'good until'} ${day(ends)}` : ''}
      </span>
      {revoked === null ? (
        <Button look="quiet" className="ml-auto" onClick={onRevoke}>
          Revoke
        </Button>
      ) : null}
    </li>
  );
}

/** What is typed to make one. */
const Draft = z.object({
  name: z.string().trim().min(1),
  scope: z.enum(['look', 'hand in', 'edit']),
  until: z.string(),
});
type Draft = z.infer<typeof Draft>;

const EMPTY: Draft = { name: '', scope: 'hand in', until: '' };

function NewKey() {
  const { register, handleSubmit, reset, control } = useForm<Draft>({
    defaultValues: EMPTY,
    resolver: zodResolver(Draft),
  });
  const name = useWatch({ control, name: 'name' });
  const make = useMutation({
    mutationFn: ({ name, scope, until }: Draft) =>
      call('POST', '/keys', { body: { name, scope, until: until || null }, answer: KeyMade }),
    onSuccess: (_made, { scope }) => {
      reset({ ...EMPTY, scope });
      again();
    },
  });
  return (
    <>
      {make.data ? (
        <p className="border-b border-rule-soft py-2 text-small" role="status">
          The key, shown this once; keep it where the program can read it:
          <code className="fig block break-all">{make.data.key}</code>
        </p>
      ) : null}
      <form className="flex flex-wrap items-end gap-3 pt-2" onSubmit={handleSubmit((draft) => make.mutate(draft))}>
        <div className="w-44">
          <Field label="For which program" {...register('name')} />
        </div>
        <div className="w-36">
          <Field label="Last day, if any" type="date" {...register('until')} />
        </div>
        <span className="pb-1.5 text-small whitespace-nowrap">
          may{' '}
          <Controller
            control={control}
            name="scope"
            render={({ field: { value, onChange } }) => (
              <ChoiceWord label="What it may do" value={value} options={SCOPES} onChoose={onChange} />
            )}
          />
        </span>
        <Button type="submit" look="line" disabled={name.trim() === ''} busy={make.isPending ? 'Making' : null}>
          Make a key
        </Button>
      </form>
      {make.isError ? <Trouble>{inWords(make.error)}</Trouble> : null}
    </>
  );
}
