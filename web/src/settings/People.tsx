import { Made, type Person, type Role } from '@grivo/contract';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, ChoiceWord, Confirm, DoneHere, Field, Head, Trouble, Word } from '../design/index.ts';
import { plural } from '../words/figures.ts';

const ROLES: { value: Role; says: string; does: string }[] = [
  { value: 'proofreader', says: 'proofreader', does: 'reads everything; passes or sends back what is held' },
  { value: 'editor', says: 'editor', does: 'makes and runs pipelines too' },
  { value: 'owner', says: 'owner', does: 'also connects blogs and services, sets limits, adds people' },
];

const again = () => {
  void queryClient.invalidateQueries({ queryKey: ['people'] });
  void queryClient.invalidateQueries({ queryKey: ['acts'] });
  void queryClient.invalidateQueries({ queryKey: ['session'] });
};

/** Everybody who works here: added, renamed, given another role or password, signed out, taken out. */
export function People() {
  const people = useQuery(read.people());
  const own = useQuery(read.session()).data?.id;
  const [adding, setAdding] = useState(false);
  const [added, setAdded] = useState<string | null>(null);
  const list = people.data?.people ?? [];
  return (
    <section aria-label="People">
      <Head
        title="People"
        right={
          <Button look="quiet" onClick={() => setAdding(!adding)}>
            {adding ? 'Not now' : 'Add a person'}
          </Button>
        }
      />
      <ul>
        {list.map((person) => (
          <PersonLine key={person.id} person={person} own={person.id === own} />
        ))}
      </ul>
      {people.isError ? <Trouble>{inWords(people.error)}</Trouble> : null}
      {added && !adding ? <DoneHere>{added} was added.</DoneHere> : null}
      {adding ? (
        <NewPersonForm
          onAdded={(name) => {
            setAdding(false);
            setAdded(name);
          }}
        />
      ) : null}
    </section>
  );
}

function PersonLine({ person, own }: { person: Person; own: boolean }) {
  const [setting, setSetting] = useState(false);
  const [removing, setRemoving] = useState(false);
  const change = useMutation({
    mutationFn: (body: { name?: string; role?: Role }) => call('PUT', `/people/${person.id}`, { body }),
    onSuccess: again,
  });
  const end = useMutation({ mutationFn: () => call('DELETE', `/people/${person.id}/sessions`), onSuccess: again });
  const remove = useMutation({ mutationFn: () => call('DELETE', `/people/${person.id}`), onSuccess: again });
  const error = change.error ?? end.error ?? remove.error;
  return (
    <li className="border-b border-rule-soft py-1">
      <NameAndRole person={person} onChange={change.mutate} />
      {setting ? <SetPassword person={person} onLeave={() => setSetting(false)} /> : null}
      {!setting && own ? <div className="text-small text-ink-3">your own password stands under ‘You’</div> : null}
      {!setting && !own ? (
        <div className="flex flex-wrap gap-x-4 text-small">
          <Button look="quiet" onClick={() => setSetting(true)}>
            New password
          </Button>
          <Button look="quiet" busy={end.isPending ? 'Ending' : null} onClick={() => end.mutate()}>
            Sign out everywhere
          </Button>
          <Button look="quiet" onClick={() => setRemoving(true)}>
            Remove
          </Button>
        </div>
      ) : null}
      {end.isSuccess ? <DoneHere>{person.name} is signed out everywhere.</DoneHere> : null}
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
      <Confirm
        open={removing}
        onOpen={setRemoving}
        title={`Remove ${person.name}?`}
        says={`${person.name} is signed out at once, and keys made by them stop working. What they wrote and decided stays, under their name. The mail address can be used again.`}
        does="Remove"
        onDo={() => remove.mutate()}
      />
    </li>
  );
}

function NameAndRole({
  person: { name, email, role },
  onChange,
}: {
  person: Person;
  onChange: (change: { name?: string; role?: Role }) => void;
}) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4">
      <span className="min-w-0">
        <Word
          label={`Name of ${name}`}
          editor={(close) => (
            <Rename
              name={name}
              onName={(next) => {
                onChange({ name: next });
                close();
              }}
            />
          )}
        >
          {name}
        </Word>{' '}
        <span className="text-small break-all text-ink-3">{email}</span>
      </span>
      <ChoiceWord
        label={`Role of ${name}`}
        value={role}
        options={ROLES}
        onChoose={(next) => onChange({ role: next })}
      />
    </div>
  );
}

function Rename({ name, onName }: { name: string; onName: (name: string) => void }) {
  const [next, setNext] = useState(name);
  return (
    <form
      className="flex items-end gap-3"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        onName(next);
      }}
    >
      <Field label="Name" required autoFocus value={next} onChange={(event) => setNext(event.target.value)} />
      <Button type="submit">Rename</Button>
    </form>
  );
}

function SetPassword({ person, onLeave }: { person: Person; onLeave: () => void }) {
  const [next, setNext] = useState('');
  const put = useMutation({
    mutationFn: () => call('PUT', `/people/${person.id}/password`, { body: { next } }),
    onSuccess: again,
  });
  if (put.isSuccess) return <DoneHere>The new password is set; {person.name} was signed out everywhere.</DoneHere>;
  return (
    <form
      className="flex items-end gap-3 py-2"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        put.mutate();
      }}
    >
      <div className="w-72">
        <Field
          label={`New password for ${person.name}`}
          type="password"
          autoComplete="new-password"
          autoFocus
          required
          minLength={10}
          value={next}
          onChange={(event) => setNext(event.target.value)}
          wrong={put.isError ? inWords(put.error) : null}
          hint="At least 10 characters. Tell it to them yourself."
        />
      </div>
      <Button type="submit" busy={put.isPending ? 'Setting' : null}>
        Set it
      </Button>
      <Button look="quiet" onClick={onLeave}>
        Not now
      </Button>
    </form>
  );
}

/** What is typed to add somebody. */
const NewPerson = z.object({
  name: z.string().trim().min(1, 'A name to call them by.'),
  email: z.email('A mail address as name@firm.example.'),
  role: z.enum(['proofreader', 'editor', 'owner']),
  password: z.string().min(10, 'At least 10 characters.'),
});
type NewPerson = z.infer<typeof NewPerson>;

function NewPersonForm({ onAdded }: { onAdded: (name: string) => void }) {
  const {
    register,
    handleSubmit,
    formState: { errors },
  } = useForm<NewPerson>({
    defaultValues: { name: '', email: '', role: 'editor', password: '' },
    resolver: zodResolver(NewPerson),
    mode: 'onTouched',
  });
  const add = useMutation({
    mutationFn: (body: NewPerson) => call('POST', '/people', { body, answer: Made }),
    onSuccess: (_made, { name }) => {
      onAdded(name);
      again();
    },
  });
  return (
    <form className="grid grid-cols-2 gap-x-4 gap-y-3 pt-3" onSubmit={handleSubmit((draft) => add.mutate(draft))}>
      <Field label="Name" autoFocus wrong={errors.name?.message} {...register('name')} />
      <Field label="Mail address" type="email" wrong={errors.email?.message} {...register('email')} />
      <Field
        label="First password"
        type="password"
        autoComplete="new-password"
        wrong={errors.password?.message}
        hint="At least 10 characters, not easily guessed. They can change it under ‘You’."
        {...register('password')}
      />
      <label className="col-span-2 flex flex-col text-small text-ink-3">
        Role
        <select className="field" {...register('role')}>
          {ROLES.map(({ value, says, does }) => (
            <option key={value} value={value}>
              {says}: {does}
            </option>
          ))}
        </select>
      </label>
      <div className="col-span-2">
        <Button look="line" type="submit" busy={add.isPending ? 'Adding' : null}>
          Add
        </Button>
        {add.isError ? <Trouble>{inWords(add.error)}</Trouble> : null}
      </div>
    </form>
  );
}

const MOST_SHOWN = 8;

/** What people did to people, sessions, keys and secrets, newest first. */
export function ActList() {
  const acts = useQuery(read.acts());
  const [all, setAll] = useState(false);
  const list = acts.data?.acts ?? [];
  const shown = all ? list : list.slice(0, MOST_SHOWN);
  return (
    <section aria-label="Who did what">
      <Head title="Who did what" right="to people, sessions, keys and secrets" />
      <ul className="text-small">
        {shown.map(({ id, at, by, what, about, from }) => (
          <li key={id} className="grid grid-cols-[104px_minmax(0,1fr)_auto] gap-x-3 border-b border-rule-soft py-1">
            <span className="fig text-ink-3">{shortMoment(at)}</span>
            <span className="min-w-0 break-words">
              {by}: {what}
              {about === by || about === '' ? '' : `, ${about}`}
            </span>
            <span className="fig text-ink-3">{from}</span>
          </li>
        ))}
      </ul>
      {list.length > MOST_SHOWN ? (
        <Button look="quiet" onClick={() => setAll(!all)}>
          {all ? 'Show fewer' : `Show ${plural(list.length - MOST_SHOWN, 'more', 'more')}`}
        </Button>
      ) : null}
      {acts.isError ? <Trouble>{inWords(acts.error)}</Trouble> : null}
    </section>
  );
}

/** Real time, not the desk clock's: 'Sat 28 Nov 09:14'. */
export function shortMoment(iso: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hour12: false,
  })
    .format(new Date(iso))
    .replace(',', '');
}
