import { ChannelFound, Made, Uploaded } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, ChoiceEditor, Field, Trouble, Word } from '../design/index.ts';

const KINDS = [
  { value: 'keywords', says: 'a keyword list', does: 'phrases pasted, typed or read from a file' },
  {
    value: 'sheet',
    says: 'a sheet',
    does: 'rows of a CSV, XLSX or ODS file, or of an address that is looked at again',
  },
  { value: 'videos', says: 'videos', does: 'a channel by handle, name or address, a playlist, or single videos' },
] as const;
type Kind = (typeof KINDS)[number]['value'];

interface Draft {
  kind: Kind;
  name: string;
  /** An address of a sheet, or what videos are meant. */
  where: string;
  file: File | null;
}

/** Several addresses are single videos; anything else is a channel. */
function addressesIn(text: string): string[] {
  const parts = text.split(/[\s,;]+/).filter((part) => part !== '');
  return parts.length > 0 && parts.every((part) => /^https?:\/\//i.test(part)) ? parts : [];
}

async function make({ kind, name, where, file }: Draft): Promise<string> {
  const post = async (title: string, settings: object) =>
    (await call('POST', '/sources', { body: { name: title, settings }, answer: Made })).id;
  if (kind === 'keywords') return post(name || 'Keywords', { kind });
  if (kind === 'sheet') {
    if (!file) return post(name || nameOf(where), { kind, address: where.trim() });
    const { file: digest } = await call('POST', '/uploads?mime=application/octet-stream', { file, answer: Uploaded });
    return post(name || file.name.replace(/\.\w+$/, ''), { kind, file: digest, fileName: file.name });
  }
  if (file) {
    const { file: digest } = await call('POST', '/uploads?mime=text/vtt', { file, answer: Uploaded });
    const title = file.name.replace(/\.\w+$/, '');
    return post(name || title, { kind, captions: [{ file: digest, fileName: file.name }], shortest: 0 });
  }
  const addresses = addressesIn(where);
  const channel = async () => call('POST', '/channels/find', { body: { text: where }, answer: ChannelFound });
  // One address may be a channel or a single video: what has no list of videos is taken for a video.
  if (addresses.length > 1) return post(name || 'Videos', { kind, addresses });
  if (addresses.length === 1) {
    const found = await channel().catch(() => null);
    return found
      ? post(name || found.name, { kind, channel: found.address, channelName: found.name })
      : post(name || 'Videos', { kind, addresses });
  }
  const found = await channel();
  return post(name || found.name, { kind, channel: found.address, channelName: found.name });
}

function nameOf(address: string): string {
  const last = address.split('/').at(-1)?.split('?')[0] ?? '';
  return last.replace(/\.\w+$/, '') || 'A sheet';
}

/** What is to be written about, and where it comes from, in one sentence. */
export function AddSource({ kind: given }: { kind: string }) {
  const [draft, setDraft] = useState<Draft>({
    kind: KINDS.find(({ value }) => value === given)?.value ?? 'keywords',
    name: '',
    where: '',
    file: null,
  });
  const go = useNavigate();
  const put = (change: Partial<Draft>) => setDraft((now) => ({ ...now, ...change }));
  const add = useMutation({
    mutationFn: () => make(draft),
    onSuccess: (id) => {
      void queryClient.invalidateQueries({ queryKey: ['sources'] });
      void go(`/intake/${id}`);
    },
  });
  const { kind, where, file } = draft;
  const ready =
    kind === 'keywords' ||
    file !== null ||
    (kind === 'sheet' ? /^https?:\/\//i.test(where.trim()) : where.trim() !== '');
  return (
    <form
      className="-mx-8 grid grid-cols-[auto_minmax(0,1fr)_minmax(0,260px)_auto] items-end gap-x-4 border-t border-rule bg-sheet px-8 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) add.mutate();
      }}
    >
      <span className="pb-1.5 text-proc whitespace-nowrap">
        Add{' '}
        <Word
          label="Kind of source"
          editor={(close) => (
            <ChoiceEditor
              value={kind}
              options={[...KINDS]}
              onChoose={(value) => {
                put({ kind: value as Kind, file: null });
                close();
              }}
            />
          )}
        >
          {KINDS.find(({ value }) => value === kind)!.says}
        </Word>
      </span>
      {kind === 'keywords' ? (
        <span className="pb-1.5 text-small text-ink-3">Paste, type or read the phrases in on its page.</span>
      ) : (
        <div className="flex items-end gap-3">
          <div className="min-w-0 flex-1">
            <Field
              label={
                kind === 'sheet'
                  ? 'Address of the sheet'
                  : 'Handle, name or address of a channel, or addresses of videos'
              }
              value={where}
              autoFocus
              onChange={(event) => put({ where: event.target.value })}
            />
          </div>
          {kind === 'sheet' || kind === 'videos' ? (
            <label className="act quiet brackets cursor-pointer pb-1.5 text-small whitespace-nowrap">
              {file ? file.name : kind === 'sheet' ? 'or a file…' : 'or captions…'}
              <input
                type="file"
                className="sr-only"
                accept={kind === 'sheet' ? '.csv,.tsv,.txt,.xlsx,.ods' : '.vtt,.srt,.txt'}
                onChange={(event) => put({ file: event.target.files?.[0] ?? null })}
              />
            </label>
          ) : null}
        </div>
      )}
      <Field
        label="Called"
        value={draft.name}
        placeholder="by itself"
        onChange={(event) => put({ name: event.target.value })}
      />
      <Button type="submit" look="solid" disabled={!ready} busy={add.isPending ? 'Looking' : null}>
        Add it
      </Button>
      {add.isError ? (
        <div className="col-span-4 pt-2">
          <Trouble>{inWords(add.error)}</Trouble>
        </div>
      ) : null}
    </form>
  );
}
