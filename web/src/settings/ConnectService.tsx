import { Made, type StandIns, type TestLine, TestLog } from '@grivo/contract';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation } from '@tanstack/react-query';
import { useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { useStandIns } from '../blogs/connect/ConnectBlog.tsx';
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
  'picture library': {
    name: 'picture library',
    hint: 'Finds photographs by what they show, with who made each and what it asks for.',
  },
  'video host': { name: 'video host', hint: 'Where channels are looked up by handle or name.' },
};

/** Models write, draw and hear; the other services only find. */
const hasModel = (role: Role) => role === 'writer' || role === 'illustrator' || role === 'transcriber';

const price = z
  .string()
  .refine((text) => /^\d{1,6}(?:[.,]\d{1,6})?$/.test(text.trim()), 'A price as 0.002; nothing costs 0.');

/** What is typed to connect one. */
const Draft = z.object({
  role: z.enum(Object.keys(SAYS) as [Role, ...Role[]]),
  name: z.string(),
  address: z.string().trim().min(1, 'The address it answers at, as https://models.example/v1.'),
  model: z.string(),
  secret: z.string(),
  perIn: price,
  perOut: price,
  perPicture: price,
  perMinute: price,
});
type Draft = z.infer<typeof Draft>;

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
  const {
    register,
    handleSubmit,
    control,
    formState: { errors },
  } = useForm<Draft>({ defaultValues: EMPTY, resolver: zodResolver(Draft), mode: 'onTouched' });
  const role = useWatch({ control, name: 'role' });
  const done = (lines: TestLine[]) => {
    for (const key of ['services', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
    onDone?.(lines);
  };
  const connect = useMutation({ mutationFn: connectAndTest, onSuccess: done });
  return (
    <form className="max-w-[620px]" onSubmit={handleSubmit((draft) => connect.mutate(draft))}>
      <ConnectStandIns onDone={done} />
      <fieldset className="flex gap-5 pb-2">
        <legend className="sr-only">What it is</legend>
        {(Object.keys(SAYS) as Role[]).map((one) => (
          <label key={one} className="flex cursor-pointer items-center gap-1.5">
            <input type="radio" value={one} className="accent-ink" {...register('role')} />
            {SAYS[one].name}
          </label>
        ))}
      </fieldset>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <Field
          label="Address"
          placeholder="https://models.example/v1"
          hint={SAYS[role].hint}
          wrong={errors.address?.message}
          {...register('address')}
        />
        <Field label="Key" type="password" autoComplete="off" {...register('secret')} />
        <Field label="Name" {...register('name')} />
        {hasModel(role) ? <Field label="Model" {...register('model')} /> : null}
        {(PRICED[role] ?? []).map((name) => (
          <Field
            key={name}
            label={PRICES[name]}
            inputMode="decimal"
            wrong={errors[name]?.message}
            {...register(name)}
          />
        ))}
      </div>
      <div className="pt-3">
        <Button look="line" type="submit" busy={connect.isPending ? 'Testing' : null}>
          Connect and test
        </Button>
      </div>
      {connect.isError ? <Trouble>{inWords(connect.error)}</Trouble> : null}
      {connect.data ? <TestLines lines={connect.data} /> : null}
    </form>
  );
}

/** All the stand-ins of a demonstration, connected at one press. */
function ConnectStandIns({ onDone }: { onDone: (lines: TestLine[]) => void }) {
  const offered = useStandIns().data?.services ?? [];
  const all = useMutation({
    mutationFn: async () => {
      const lines = [];
      for (const { role, name, address, secret, price } of offered)
        lines.push(
          ...(await connectAndTest({
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
    onSuccess: onDone,
  });
  if (offered.length === 0) return null;
  return (
    <div className="pb-3">
      <Button look="line" busy={all.isPending ? 'Connecting' : null} onClick={() => all.mutate()}>
        Connect the stand-ins
      </Button>
      <span className="pl-3 text-small text-ink-3">
        {offered.map(({ name }) => name).join(', ')}: they cost nothing real.
      </span>
      {all.isError ? <Trouble>{inWords(all.error)}</Trouble> : null}
      {all.data ? <TestLines lines={all.data} /> : null}
    </div>
  );
}
