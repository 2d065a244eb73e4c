import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, DoneHere, Field, Head, Trouble } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { shortMoment } from './People.tsx';

/** What is one's own: the password, and where one is signed in. */
export function You() {
  const session = useQuery(read.session()).data;
  const sessions = useQuery(read.sessions());
  const [changing, setChanging] = useState(false);
  const again = () => void queryClient.invalidateQueries({ queryKey: ['sessions'] });
  const end = useMutation({ mutationFn: (id: string) => call('DELETE', `/session/all/${id}`), onSuccess: again });
  const others = useMutation({ mutationFn: () => call('DELETE', '/session/others'), onSuccess: again });
  const list = sessions.data?.sessions ?? [];
  const error = end.error ?? others.error ?? sessions.error;
  return (
    <section aria-label="You">
      <Head
        title="You"
        right={
          <Button look="quiet" onClick={() => setChanging(!changing)}>
            {changing ? 'Not now' : 'Change your password'}
          </Button>
        }
      />
      {changing ? <ChangePassword onDone={again} /> : null}
      <p className="py-1 text-small text-ink-2">
        {session ? `${session.name}, ${session.role}. ` : ''}
        {list.length > 0 ? `Signed in at ${plural(list.length, 'place')}; each ends after 12 hours without you. ` : ''}
        {list.length > 1 ? (
          <Button look="word" busy={others.isPending ? 'Ending' : null} onClick={() => others.mutate()}>
            End all but this one
          </Button>
        ) : null}
      </p>
      <ul className="text-small">
        {list.map((one) => (
          <li key={one.id} className="grid grid-cols-[104px_minmax(0,1fr)_auto] gap-x-3 border-b border-rule-soft py-1">
            <span className="fig text-ink-3">{shortMoment(one.seen)}</span>
            <span className="min-w-0 truncate" title={one.agent}>
              {one.here ? 'this browser' : /Mozilla/.test(one.agent) ? 'another browser' : 'a program'}{' '}
              <span className="fig text-ink-3">{one.from}</span>
            </span>
            {one.here ? null : (
              <Button look="quiet" onClick={() => end.mutate(one.id)}>
                End
              </Button>
            )}
          </li>
        ))}
      </ul>
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
    </section>
  );
}

function ChangePassword({ onDone }: { onDone: () => void }) {
  const [draft, setDraft] = useState({ now: '', next: '' });
  const put = useMutation({
    mutationFn: () => call('PUT', '/session/password', { body: draft }),
    onSuccess: () => {
      setDraft({ now: '', next: '' });
      onDone();
    },
  });
  if (put.isSuccess) return <DoneHere>The new password is set. All other places were signed out.</DoneHere>;
  return (
    <form
      className="grid grid-cols-2 items-start gap-x-4 gap-y-2 py-2"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        put.mutate();
      }}
    >
      <Field
        label="Present password"
        type="password"
        autoComplete="current-password"
        autoFocus
        required
        value={draft.now}
        onChange={(event) => setDraft({ ...draft, now: event.target.value })}
      />
      <Field
        label="New password"
        type="password"
        autoComplete="new-password"
        required
        minLength={10}
        value={draft.next}
        onChange={(event) => setDraft({ ...draft, next: event.target.value })}
        hint="At least 10 characters."
      />
      <div className="col-span-2">
        <Button type="submit" busy={put.isPending ? 'Changing' : null}>
          Change it
        </Button>
        {put.isError ? <Trouble>{inWords(put.error)}</Trouble> : null}
      </div>
    </form>
  );
}
