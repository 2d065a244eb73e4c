import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Field } from '../design/index.ts';

/** The only thing to see without a session. */
export function SignIn({ unreached }: { unreached: boolean }) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setWrong(null);
    try {
      await call('POST', '/session', { body: { email, password } });
      await queryClient.resetQueries();
    } catch (error) {
      setWrong(inWords(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <main className="mx-auto w-[320px] pt-[18vh]">
      <h1 className="text-lead font-medium">
        <span className="font-extrabold tracking-[-0.035em]">Grivo</span>
      </h1>
      <p className="pb-6 text-ink-2">Sign in to see what went out and what comes next.</p>
      {unreached ? <p className="wrong pb-3 text-small">Grivo does not answer yet. It may still be starting.</p> : null}
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-4 border-t border-ink pt-4">
        <Field
          label="Mail address"
          type="email"
          autoComplete="username"
          required
          value={email}
          onChange={(event) => setEmail(event.target.value)}
        />
        <Field
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          wrong={wrong}
        />
        <div>
          <Button look="solid" type="submit" hint="Enter" busy={busy ? 'Signing in' : null}>
            Sign in
          </Button>
        </div>
      </form>
    </main>
  );
}
