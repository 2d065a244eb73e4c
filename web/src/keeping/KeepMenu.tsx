import type { KeptNoun, KeptWords, LabelledNoun } from '@grivo/contract';
import { type UseMutationResult, useMutation } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Field, Trouble, useMay } from '../design/index.ts';
import { LabelTicks } from '../labels/LabelTicks.tsx';
import { ClearMade } from './ClearMade.tsx';
import { Remove } from './Remove.tsx';

/** What each noun is called, and where one is when it is gone. */
const NOUNS: Record<KeptNoun, { one: string; back: string | null; keys: readonly string[] }> = {
  pipelines: { one: 'pipeline', back: '/pipelines', keys: ['pipelines', 'pipeline'] },
  sources: { one: 'source', back: '/intake', keys: ['sources', 'source'] },
  blogs: { one: 'blog', back: '/blogs', keys: ['blogs', 'slots'] },
  services: { one: 'service', back: null, keys: ['services'] },
  routines: { one: 'routine', back: '/pipelines', keys: ['routines'] },
  labels: { one: 'label', back: null, keys: ['labels', 'pipelines', 'sources', 'blogs'] },
  destinations: { one: 'destination', back: null, keys: ['destinations', 'pipelines', 'pipeline'] },
  styles: { one: 'house style', back: '/styles', keys: ['styles', 'style', 'blogs'] },
};

interface Kept {
  id: string;
  name: string;
  /** Not said of nouns that have none. */
  note?: string;
  archived?: boolean;
  openLimit?: number;
  labels?: readonly string[];
}

type Open = 'name' | 'note' | 'labels' | 'limit' | 'remove' | null;

/** Nouns that carry labels. */
const LABELLED: Partial<Record<KeptNoun, LabelledNoun>> = {
  pipelines: 'pipeline',
  sources: 'source',
  blogs: 'blog',
  styles: 'style',
};

/** Renaming, noting, putting away and removing, in one way for every noun; what hangs on it is said before it goes. */
export function KeepMenu({ of, it }: { of: KeptNoun; it: Kept }) {
  const may = useMay();
  const [open, setOpen] = useState<Open>(null);
  const again = () => {
    for (const key of [...NOUNS[of].keys, 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
  };
  const change = useMutation({
    mutationFn: (words: KeptWords) => call('PATCH', `/${of}/${it.id}/words`, { body: words }),
    onSuccess: () => {
      setOpen(null);
      again();
    },
  });
  if (!may) return null;
  return (
    <>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger asChild>
          <button type="button" className="act quiet brackets" aria-label={`More about ${it.name}`}>
            more
          </button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="pop !min-w-[220px] !p-1" sideOffset={8} align="end" collisionPadding={12}>
            <Items of={of} it={it} onOpen={setOpen} onChange={change.mutate} />
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {open === null && !change.isError ? null : (
        <div className="basis-full border-t border-rule-soft py-3">
          <Opened of={of} it={it} open={open} change={change} again={again} onLeave={() => setOpen(null)} />
          {open === null && change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
        </div>
      )}
    </>
  );
}

const ITEM = 'choice !block cursor-pointer outline-none';

/** What can be done with it. */
function Items({
  of,
  it,
  onOpen,
  onChange,
}: {
  of: KeptNoun;
  it: Kept;
  onOpen: (open: Open) => void;
  onChange: (words: KeptWords) => void;
}) {
  return (
    <>
      <DropdownMenu.Item className={ITEM} onSelect={() => onOpen('name')}>
        Rename it…
      </DropdownMenu.Item>
      {it.note === undefined ? null : (
        <DropdownMenu.Item className={ITEM} onSelect={() => onOpen('note')}>
          {it.note === '' ? 'Add a note…' : 'Change its note…'}
        </DropdownMenu.Item>
      )}
      {LABELLED[of] && it.labels ? (
        <DropdownMenu.Item className={ITEM} onSelect={() => onOpen('labels')}>
          Labels…
        </DropdownMenu.Item>
      ) : null}
      {it.openLimit === undefined ? null : (
        <DropdownMenu.Item className={ITEM} onSelect={() => onOpen('limit')}>
          At most {it.openLimit} briefs at once…
        </DropdownMenu.Item>
      )}
      {it.archived === undefined ? null : (
        <DropdownMenu.Item className={ITEM} onSelect={() => onChange({ archived: !it.archived })}>
          {it.archived ? 'Bring it back from the archive' : 'Archive it'}
          <span className="block text-small text-ink-3">
            {it.archived ? 'it is offered and listed again' : 'kept, and no longer listed or offered'}
          </span>
        </DropdownMenu.Item>
      )}
      <DropdownMenu.Item className={ITEM} onSelect={() => onOpen('remove')}>
        Remove it…
      </DropdownMenu.Item>
    </>
  );
}

interface AskedField {
  label: string;
  value: string;
  does: string;
  /** Whether it may be empty. */
  empty?: boolean;
  words: (text: string) => KeptWords;
}

/** What is typed of one, and what it changes. */
const ASKED: Record<'name' | 'note' | 'limit', (it: Kept, one: string) => AskedField> = {
  name: ({ name }) => ({ label: 'Its name', value: name, does: 'Rename it', words: (text) => ({ name: text }) }),
  note: ({ note }, one) => ({
    label: `A note about this ${one}`,
    value: note ?? '',
    empty: true,
    does: 'Keep it',
    words: (text) => ({ note: text }),
  }),
  limit: ({ openLimit }) => ({
    label: 'Briefs in work at once, at most',
    value: String(openLimit),
    does: 'Set it',
    words: (text) => ({ openLimit: Math.round(Number(text)) }),
  }),
};

/** The one of them that is open. */
function Opened({
  of,
  it,
  open,
  change,
  again,
  onLeave,
}: {
  of: KeptNoun;
  it: Kept;
  open: Open;
  change: UseMutationResult<unknown, Error, KeptWords>;
  again: () => void;
  onLeave: () => void;
}) {
  const { one, back } = NOUNS[of];
  const go = useNavigate();
  const asked = open === 'name' || open === 'note' || open === 'limit' ? ASKED[open](it, one) : null;
  if (asked)
    return (
      <OneField
        {...asked}
        busy={change.isPending}
        wrong={change.isError ? inWords(change.error) : null}
        onDone={(text) => change.mutate(asked.words(text))}
        onLeave={onLeave}
      />
    );
  if (open === 'labels' && LABELLED[of] && it.labels)
    return <LabelTicks noun={LABELLED[of]} it={{ id: it.id, labels: it.labels }} onLeave={onLeave} />;
  if (open !== 'remove') return null;
  return (
    <Remove
      path={`/${of}/${it.id}`}
      instead={(cleared) => (of === 'pipelines' ? <ClearMade pipeline={it.id} onCleared={cleared} /> : null)}
      onLeave={onLeave}
      onGone={() => {
        again();
        onLeave();
        if (back) void go(back);
      }}
    />
  );
}

function OneField({
  label,
  value,
  empty = false,
  does,
  busy,
  wrong,
  onDone,
  onLeave,
}: Omit<AskedField, 'words'> & {
  busy: boolean;
  wrong: string | null;
  onDone: (text: string) => void;
  onLeave: () => void;
}) {
  const [text, setText] = useState(value);
  return (
    <form
      className="flex items-end gap-4"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        onDone(text.trim());
      }}
    >
      <div className="w-96">
        <Field
          label={label}
          required={!empty}
          autoFocus
          value={text}
          onChange={(event) => setText(event.target.value)}
          wrong={wrong}
        />
      </div>
      <Button look="line" type="submit" busy={busy ? 'Keeping' : null}>
        {does}
      </Button>
      <Button look="word" onClick={onLeave}>
        Leave it
      </Button>
    </form>
  );
}
