import { Made, type StandIns, type TestLine, TestLog } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { useStandIns } from '../blogs/ConnectBlog.tsx';
import { TestLines } from '../blogs/TestLines.tsx';
import { Button, Field, Trouble } from '../design/index.ts';
import { webAddress } from '../words/address.ts';

type Role = StandIns['services'][number]['role'];

const SAYS: Record<Role, { name: string; hint: string }> = {
  writer: { name: 'writer', hint: 'A service that answers chat completions.' },
  illustrator: { name: 'illustrator', hint: 'A service that answers image generations.' },
  'look-up': { name: 'look-up', hint: 'A service that finds pages by subject.' },
  'keyword service': {
    name: 'keyword service',
    hint: 'How often phrases are searched for, how hard each is, and what a search gives.',
  },
  transcriber: { name: 'transcriber', hint: 'A service that answers audio transcriptions.' },
  'video host': { name: 'video host', hint: 'Where channels are looked up by handle or name.' },
};

/** Models write, draw and hear; the other services only find. */
const hasModel = (role: Role) => role === 'writer' || role === 'illustrator' || role === 'transcriber';

interface Draft {
  role: Role;
  name: string;
  address: string;
  model: string;
  secret: string;
  perIn: string;
  perOut: string;
  perPicture: string;
  perMinute: string;
}

const EMPTY: Draft = {
  role: 'writer',
  name: '',
  address: '',
  model: '',
  secret: '',
  perIn: '0',
  perOut: '0',
  perPicture: '0',
  perMinute: '0',
};

const PRICES = {
  perIn: '€ per 1,000 tokens in',
  perOut: '€ per 1,000 tokens out',
  perPicture: '€ per picture',
  perMinute: '€ per minute of sound',
};

/** What a service of a role charges for. */
const PRICED: Partial<Record<Role, readonly (keyof typeof PRICES)[]>> = {
  writer: ['perIn', 'perOut'],
  illustrator: ['perPicture'],
  transcriber: ['perMinute'],
};

const micros = (text: string) => Math.round(Number(text.replace(',', '.')) * 1_000_000);

async function connectAndTest(draft: Draft) {
  const { id } = await call('POST', '/services', {
    body: {
      role: draft.role,
      name: draft.name || SAYS[draft.role].name,
      address: webAddress(draft.address),
      model: draft.model,
      secret: draft.secret.trim() === '' ? null : draft.secret,
      // An hour of sound is not heard in a minute, and each call given up is paid for.
      ...(draft.role === 'transcriber' ? { timeLimitMs: 600_000 } : {}),
      price: {
        microsPerThousandIn: micros(draft.perIn),
        microsPerThousandOut: micros(draft.perOut),
        microsPerPicture: micros(draft.perPicture),
        microsPerMinute: micros(draft.perMinute),
      },
    },
    answer: Made,
  });
  return (await call('POST', `/services/${id}/test`, { answer: TestLog })).lines;
}

/** Connects a service by its address, key and price, and tests it. The stand-ins are connected at one press. */
export function ConnectService({ onDone }: { onDone?: (lines: TestLine[]) => void }) {
  const [draft, setDraft] = useState(EMPTY);
  const standIns = useStandIns();
  const done = (lines: TestLine[]) => {
    for (const key of ['services', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
    onDone?.(lines);
  };
  const connect = useMutation({ mutationFn: () => connectAndTest(draft), onSuccess: done });
  const offered = standIns.data?.services ?? [];
  const all = useMutation({
    mutationFn: async () => {
      const lines = [];
      for (const { role, name, address, secret, price } of offered)
        lines.push(
          ...(await connectAndTest({
            ...EMPTY,
            role,
            name,
            address,
            secret: secret ?? '',
            model: hasModel(role) ? 'stand-in' : '',
            perIn: String(price.microsPerThousandIn / 1e6),
            perOut: String(price.microsPerThousandOut / 1e6),
            perPicture: String(price.microsPerPicture / 1e6),
            perMinute: String(price.microsPerMinute / 1e6),
          })),
        );
      return lines.map((line, i) => ({ ...line, tried: `${offered[i]?.name ?? ''}: ${line.tried.toLowerCase()}` }));
    },
    onSuccess: done,
  });
  const set = (name: keyof Draft) => (event: { target: { value: string } }) =>
    setDraft({ ...draft, [name]: event.target.value });
  const priced = PRICED[draft.role] ?? [];
  return (
    <form
      className="max-w-[620px]"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        connect.mutate();
      }}
    >
      {offered.length > 0 ? (
        <p className="pb-3">
          <Button look="line" busy={all.isPending ? 'Connecting' : null} onClick={() => all.mutate()}>
            Connect the stand-ins
          </Button>
          <span className="pl-3 text-small text-ink-3">
            {offered.map(({ name }) => name).join(', ')}: they cost nothing real.
          </span>
        </p>
      ) : null}
      <fieldset className="flex gap-5 pb-2">
        <legend className="sr-only">What it is</legend>
        {(Object.keys(SAYS) as Role[]).map((role) => (
          <label key={role} className="flex cursor-pointer items-center gap-1.5">
            <input
              type="radio"
              name="role"
              className="accent-ink"
              checked={draft.role === role}
              onChange={() => setDraft({ ...draft, role })}
            />
            {SAYS[role].name}
          </label>
        ))}
      </fieldset>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <Field
          label="Address"
          placeholder="https://models.example/v1"
          required
          value={draft.address}
          onChange={set('address')}
          hint={SAYS[draft.role].hint}
        />
        <Field label="Key" type="password" autoComplete="off" value={draft.secret} onChange={set('secret')} />
        <Field label="Name" value={draft.name} onChange={set('name')} />
        {!hasModel(draft.role) ? null : <Field label="Model" value={draft.model} onChange={set('model')} />}
        {priced.map((name) => (
          <Field
            key={name}
            label={PRICES[name]}
            inputMode="decimal"
            value={draft[name]}
            onChange={set(name)}
            wrong={Number.isFinite(micros(draft[name])) && micros(draft[name]) >= 0 ? null : 'A price as 0.002'}
          />
        ))}
      </div>
      <div className="pt-3">
        <Button look="line" type="submit" busy={connect.isPending ? 'Testing' : null}>
          Connect and test
        </Button>
      </div>
      {connect.isError || all.isError ? <Trouble>{inWords(connect.error ?? all.error)}</Trouble> : null}
      {all.data || connect.data ? <TestLines lines={all.data ?? connect.data ?? []} /> : null}
    </form>
  );
}
