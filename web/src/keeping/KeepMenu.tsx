import type { KeptNoun, KeptWords } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Field, Trouble, useMay } from '../design/index.ts';
import { ClearMade } from './ClearMade.tsx';
import { Remove } from './Remove.tsx';

/** What each noun is called, and where one is when it is gone. */
const NOUNS: Record<KeptNoun, { one: string; back: string | null; keys: readonly string[] }> = {
  pipelines: { one: 'pipeline', back: '/pipelines', keys: ['pipelines', 'pipeline'] },
  sources: { one: 'source', back: '/intake', keys: ['sources', 'source'] },
  blogs: { one: 'blog', back: '/blogs', keys: ['blogs', 'slots'] },
  services: { one: 'service', back: null, keys: ['services'] },
  routines: { one: 'routine', back: '/pipelines', keys: ['routines'] },
};

interface Kept {
  id: string;
  name: string;
  /** Not said of nouns that have none. */
  note?: string;
  archived?: boolean;
  openLimit?: number;
}

type Open = 'name' | 'note' | 'limit' | 'remove' | null;

/** Renaming, noting, putting away and removing, in one way for every noun; what hangs on it is said before it goes. */
export function KeepMenu({ of, it }: { of: KeptNoun; it: Kept }) {
  const may = useMay();
  const { one, back, keys } = NOUNS[of];
  const [open, setOpen] = useState<Open>(null);
  const go = useNavigate();
  const again = () => {
    for (const key of [...keys, 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
  };
  const change = useMutation({
    mutationFn: (words: KeptWords) => call('PATCH', `/${of}/${it.id}/words`, { body: words }),
    onSuccess: () => {
      setOpen(null);
      again();
    },
  });
  const item = 'choice !block cursor-pointer outline-none';
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
            <DropdownMenu.Item className={item} onSelect={() => setOpen('name')}>
              Rename it…
            </DropdownMenu.Item>
            {it.note === undefined ? null : (
              <DropdownMenu.Item className={item} onSelect={() => setOpen('note')}>
                {it.note === '' ? 'Add a note…' : 'Change its note…'}
              </DropdownMenu.Item>
            )}
            {it.openLimit === undefined ? null : (
              <DropdownMenu.Item className={item} onSelect={() => setOpen('limit')}>
                At most {it.openLimit} briefs at once…
              </DropdownMenu.Item>
            )}
            {it.archived === undefined ? null : (
              <DropdownMenu.Item className={item} onSelect={() => change.mutate({ archived: !it.archived })}>
                {it.archived ? 'Bring it back from the archive' : 'Archive it'}
                <span className="block text-small text-ink-3">
                  {it.archived ? 'it is offered and listed again' : 'kept, and no longer listed or offered'}
                </span>
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={item} onSelect={() => setOpen('remove')}>
              Remove it…
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {open === null && !change.isError ? null : (
        <div className="basis-full border-t border-rule-soft py-3">
          {open === 'name' ? (
            <OneField
              label="Its name"
              value={it.name}
              does="Rename it"
              busy={change.isPending}
              wrong={change.isError ? inWords(change.error) : null}
              onDone={(name) => change.mutate({ name })}
              onLeave={() => setOpen(null)}
            />
          ) : null}
          {open === 'note' ? (
            <OneField
              label={`A note about this ${one}`}
              value={it.note ?? ''}
              empty
              does="Keep it"
              busy={change.isPending}
              wrong={change.isError ? inWords(change.error) : null}
              onDone={(note) => change.mutate({ note })}
              onLeave={() => setOpen(null)}
            />
          ) : null}
          {open === 'limit' ? (
            <OneField
              label="Briefs in work at once, at most"
              value={String(it.openLimit)}
              does="Set it"
              busy={change.isPending}
              wrong={change.isError ? inWords(change.error) : null}
              onDone={(n) => change.mutate({ openLimit: Math.round(Number(n)) })}
              onLeave={() => setOpen(null)}
            />
          ) : null}
          {open === 'remove' ? (
            <Remove
              path={`/${of}/${it.id}`}
              instead={(again) => (of === 'pipelines' ? <ClearMade pipeline={it.id} onCleared={again} /> : null)}
              onLeave={() => setOpen(null)}
              onGone={() => {
                again();
                setOpen(null);
                if (back) void go(back);
              }}
            />
          ) : null}
          {open === null && change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
        </div>
      )}
    </>
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
}: {
  label: string;
  value: string;
  /** Whether it may be empty. */
  empty?: boolean;
  does: string;
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
