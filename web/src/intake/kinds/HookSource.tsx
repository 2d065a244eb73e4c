import { HookDoor, type HookSettings, type SourceWhole } from '@grivo/contract';
import { listWords } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { queryClient, read } from '../../api/queries.ts';
import { Button, ChoiceWord, Confirm, Head, Loading, Trouble, ValuesEditor, Word } from '../../design/index.ts';
import { useNow } from '../../shell/useNow.ts';
import { copyText } from '../../words/copy.ts';
import { moment } from '../../words/time.ts';
import { ItemsSource } from '../items/ItemsSource.tsx';
import { ExcludeWord } from '../LookWords.tsx';
import { useChange } from '../useSource.ts';

const TYPES: HookSettings['fields'][number]['type'][] = ['text', 'number', 'yes or no', 'address'];

/** Fields as lines: a name, its type, and whether it is needed. */
function fieldsIn(lines: readonly string[]): HookSettings['fields'] {
  return lines.flatMap((line) => {
    const [, name, rest = ''] = /^([a-z][A-Za-z0-9]{0,39})\b(.*)$/.exec(line.trim()) ?? [];
    if (!name) return [];
    const type =
      TYPES.find((one) =>
        rest
          .replace(/^[\s,]+/, '')
          .toLowerCase()
          .startsWith(one),
      ) ?? 'text';
    return [{ name, type, needed: /needed/i.test(rest) }];
  });
}

/** A door for other programs: its address, what calls are signed with, what they may say, and what came lately. */
export function HookSource({ source, settings }: { source: SourceWhole; settings: HookSettings }) {
  const change = useChange(source);
  const put = (next: Partial<HookSettings>) => change.mutate({ ...settings, ...next });
  return (
    <ItemsSource
      source={source}
      says="hook"
      one="call"
      looks={false}
      sentence={<Sentence settings={settings} put={put} />}
      above={change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      aside={<Door source={source.id} settings={settings} />}
      empty="No call yet. The lines beside this try it."
    />
  );
}

const SIGNED = [
  { value: 'true', says: 'signed', does: 'with the secret below; nobody else can call' },
  { value: 'false', says: 'signed or not', does: 'whoever knows the address can call' },
];

const CONFIRMED = [
  { value: 'false', says: 'goes to its pipelines at once', does: 'those that are on' },
  {
    value: 'true',
    says: 'waits for somebody’s approval',
    does: 'it stands under ‘left out’ until somebody accepts it',
  },
];

function Sentence({
  settings: { signed, fields, confirm, exclude },
  put,
}: {
  settings: HookSettings;
  put: (next: Partial<HookSettings>) => void;
}) {
  return (
    <p>
      Take calls that are{' '}
      <ChoiceWord
        label="Signed"
        value={String(signed)}
        options={SIGNED}
        onChoose={(value) => put({ signed: value === 'true' })}
      />
      , with a subject and{' '}
      <Word
        label="Fields"
        editor={() => (
          <>
            <ValuesEditor
              label="Fields, one a line: a name, its type, ‘needed’"
              value={fields.map(({ name, type, needed }) => `${name}, ${type}${needed ? ', needed' : ''}`)}
              most={40}
              onChange={(lines) => put({ fields: fieldsIn(lines) })}
            />
            <p className="pt-1 text-small text-ink-3">As ‘litres, number, needed’. Types: {TYPES.join(', ')}.</p>
          </>
        )}
      >
        {listWords(
          fields.map(({ name, needed }) => (needed ? `${name} (needed)` : name)),
          'no fields of its own',
        )}
      </Word>
      ; what comes{' '}
      <ChoiceWord
        label="Confirmed"
        value={String(confirm)}
        options={CONFIRMED}
        onChoose={(value) => put({ confirm: value === 'true' })}
      />
      ; leave out subjects with <ExcludeWord exclude={exclude} onChange={(next) => put({ exclude: next })} />.
    </p>
  );
}

function Door({ source, settings }: { source: string; settings: HookSettings }) {
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const [shown, setShown] = useState(false);
  const [asking, setAsking] = useState(false);
  const owner = useQuery(read.session()).data?.role === 'owner';
  const door = useQuery({
    queryKey: ['hook', source, settings],
    queryFn: () => call('GET', `/sources/${source}/hook`, { answer: HookDoor }),
  });
  const renew = useMutation({
    mutationFn: () => call('POST', `/sources/${source}/hook/renew`),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['hook', source] }),
  });
  if (door.isPending) return <Loading rows={6} />;
  if (door.isError) return <Trouble>{inWords(door.error)}</Trouble>;
  const { address, secret, curl, ask, calls } = door.data;
  return (
    <section aria-label="How it is called" className="pb-4">
      <Head title="How it is called" right="" />
      <Copied label="Address" text={address} />
      {settings.signed && secret === null ? (
        <p className="border-b border-rule-soft py-1.5 text-small text-ink-3">
          Calls are signed with a secret that an owner can see here.
        </p>
      ) : null}
      {settings.signed && secret !== null ? (
        <Copied
          label="Secret, SECRET in the lines below"
          text={shown ? secret : '••••••••••••••••'}
          copies={secret}
          more={
            <Button look="quiet" onClick={() => setShown(!shown)}>
              {shown ? 'Hide' : 'Show'}
            </Button>
          }
        />
      ) : null}
      <Copied label="Try it in a shell" text={curl} />
      <Copied label="Ask what became of it" text={ask} />
      <p className="pt-1 text-small text-ink-3">
        {'{"run": true}'} makes its pipelines look at once. The same key sent twice counts once.
      </p>
      {owner ? (
        <p className="py-2 text-small">
          <Button look="quiet" onClick={() => setAsking(true)}>
            Another address and secret
          </Button>
        </p>
      ) : null}
      <Confirm
        open={asking}
        onOpen={setAsking}
        title="Another address and secret?"
        says="Programs that call the present address are turned away from then on, until they are given the new one."
        does="Renew"
        onDo={() => renew.mutate()}
      />
      {renew.isError ? <Trouble>{inWords(renew.error)}</Trouble> : null}
      <Head title="Calls" right={String(calls.length)} />
      <ul className="text-small">
        {calls.map((one) => (
          <li key={one.key} className="grid grid-cols-[84px_minmax(0,1fr)] gap-2 border-b border-rule-soft py-1">
            <span className="fig text-ink-3">{moment(one.atDesk, now)}</span>
            <span className="truncate" title={one.key}>
              {one.subject}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A text that is there to be copied. */
function Copied({
  label,
  text,
  copies = text,
  more,
}: {
  label: string;
  text: string;
  copies?: string;
  more?: React.ReactNode;
}) {
  const [done, setDone] = useState(false);
  return (
    <div className="border-b border-rule-soft py-1.5">
      <div className="flex items-baseline gap-3 text-small text-ink-3">
        {label}
        <span className="ml-auto flex gap-3">
          {more}
          <Button look="quiet" onClick={() => void copyText(copies).then(() => setDone(true))}>
            {done ? 'Copied' : 'Copy'}
          </Button>
        </span>
      </div>
      <code className="fig block break-all whitespace-pre-wrap">{text}</code>
    </div>
  );
}
