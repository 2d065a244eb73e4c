import { type Item, Recorded, type RecordingSettings, type SourceWhole } from '@grivo/contract';
import { clockOf } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { Button, Field, Loading, Mark, NumberEditor, TextEditor, Trouble, Word } from '../../design/index.ts';
import { money, plural } from '../../words/figures.ts';
import { FileButton } from '../FileButton.tsx';
import { ItemsSource } from '../items/ItemsSource.tsx';
import { ExcludeWord, StartWord } from '../LookWords.tsx';
import { soundFile, useRecorder } from '../sound/useRecorder.ts';
import { useGivenFiles } from '../useGivenFiles.ts';
import { useChange } from '../useSource.ts';

export const SOUND_FILES = 'audio/*,.wav,.mp3,.m4a,.ogg,.opus,.flac,.webm';

/** Recordings: a podcast's episodes, files, or spoken here; each can be listened to, with what having it heard costs. */
export function RecordingSource({ source, settings }: { source: SourceWhole; settings: RecordingSettings }) {
  const change = useChange(source);
  const put = (next: Partial<RecordingSettings>) => change.mutate({ ...settings, ...next });
  const add = useGivenFiles(source, settings);
  return (
    <ItemsSource
      source={source}
      says="recordings"
      one="recording"
      actions={<FileButton says="Upload recordings" busy="Uploading…" accept={SOUND_FILES} many onFiles={add} />}
      sentence={<Sentence settings={settings} put={put} />}
      above={
        <>
          {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
          <Speak onSpoken={add} />
        </>
      }
      reads={(item) => <Listen key={item.id} item={item} />}
      empty={
        settings.files.length > 0 || settings.podcast !== null
          ? 'Nothing has been looked at yet. Look at it once, and its recordings stand here; looking takes nothing.'
          : 'No recordings yet. Speak one, upload some, or name a podcast in the sentence above.'
      }
    />
  );
}

function Sentence({ settings, put }: { settings: RecordingSettings; put: (next: Partial<RecordingSettings>) => void }) {
  return (
    <p>
      Use {plural(settings.files.length, 'recording')} uploaded or spoken here, and the episodes of{' '}
      <Word
        label="Podcast"
        editor={(close) => (
          <TextEditor
            label="Address of a podcast’s feed"
            value={settings.podcast ?? ''}
            hint="Empty reads none."
            onChange={(text) => {
              const at = text.trim();
              if (at === '') put({ podcast: null });
              else if (URL.canParse(at) && /^https?:/.test(at)) put({ podcast: at });
            }}
            onDone={close}
          />
        )}
      >
        {settings.podcast === null
          ? 'no podcast'
          : settings.podcastName || settings.podcast.replace(/^https?:\/\//, '')}
      </Word>
      , none longer than{' '}
      <Word
        label="Longest"
        editor={() => (
          <NumberEditor
            label="Longest, in minutes"
            value={settings.longestMinutes}
            least={1}
            most={600}
            unit="minutes"
            onChange={(longestMinutes) => longestMinutes !== null && put({ longestMinutes })}
          />
        )}
      >
        {plural(settings.longestMinutes, 'minute')}
      </Word>
      ; start from <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />; leave out
      titles with <ExcludeWord exclude={settings.exclude} onChange={(exclude) => put({ exclude })} />.
    </p>
  );
}

/** A line at which something can be spoken: it shows that it hears, and for how long. */
function Speak({ onSpoken }: { onSpoken: (files: File[]) => Promise<void> }) {
  const recorder = useRecorder();
  const [name, setName] = useState('');
  const keep = useMutation({
    mutationFn: async (sound: Promise<Blob>) =>
      onSpoken([soundFile(await sound, name.trim().replace(/[/\\]/g, ' ') || 'Spoken')]),
    onSuccess: () => setName(''),
  });
  return (
    <div
      className="-mx-8 flex flex-wrap items-end gap-4 border-t border-rule px-8 py-2"
      role="group"
      aria-label="Speak"
    >
      <div className="w-64">
        <Field label="Speak about" value={name} onChange={(event) => setName(event.target.value)} />
      </div>
      {recorder.state === 'recording' ? (
        <>
          <Button look="line" onClick={() => keep.mutate(recorder.stop())}>
            Keep it
          </Button>
          <Button look="quiet" onClick={recorder.drop}>
            Drop it
          </Button>
          <span className="flex items-center gap-2 pb-1.5" role="status">
            <Mark state="busy" /> <span className="fig">{clockOf(recorder.seconds)}</span>
            <span className="relative block h-2 w-32 border border-rule-strong" aria-hidden>
              <span className="absolute inset-y-0 left-0 bg-ink" style={{ width: `${recorder.loud * 100}%` }} />
            </span>
            <span className="text-small text-ink-3">
              {recorder.full
                ? 'this is the longest a recording can be: keep it, then go on in another'
                : recorder.quietFor > 3
                  ? 'no sound yet'
                  : 'it hears you'}
            </span>
          </span>
        </>
      ) : (
        <Button
          look="line"
          busy={recorder.state === 'asking' ? 'Asking' : keep.isPending ? 'Keeping' : null}
          onClick={() => recorder.state === 'idle' && recorder.start()}
        >
          Record
        </Button>
      )}
      {recorder.state === 'idle' && recorder.problem ? <Trouble>{recorder.problem}</Trouble> : null}
      {keep.isError ? <Trouble>{inWords(keep.error)}</Trouble> : null}
    </div>
  );
}

/** A recording to be listened to, with what having it heard costs at most. */
function Listen({ item }: { item: Item }) {
  const about = useQuery({
    queryKey: ['recording', item.id],
    queryFn: () => call('GET', `/items/${item.id}/recording`, { answer: Recorded }),
    staleTime: 5 * 60_000,
    retry: false,
  });
  if (about.isPending) return <Loading rows={3} label="Fetching it" />;
  if (about.isError) return <Trouble>{inWords(about.error)}</Trouble>;
  const { seconds, form, micros } = about.data;
  return (
    <>
      <p className="py-2 text-small text-ink-2">
        {form}
        {seconds === null ? '' : `, ${clockOf(seconds)}`}.{' '}
        {micros === null ? (
          'There is no transcriber; connect one under Settings.'
        ) : (
          <>
            Transcribing it costs at most <b className="font-semibold">{money(micros)}</b>, once, however often it is
            used.
          </>
        )}
      </p>
      <Player item={item.id} seconds={seconds} />
    </>
  );
}

/** Plays a recording, and shows where it is. */
function Player({ item, seconds }: { item: string; seconds: number | null }) {
  const sound = useRef<HTMLAudioElement>(null);
  const [at, setAt] = useState(0);
  const [playing, setPlaying] = useState(false);
  const [broken, setBroken] = useState(false);
  const toggle = () => {
    const { current } = sound;
    if (!current) return;
    if (playing) current.pause();
    else void current.play().catch(() => setBroken(true));
  };
  return (
    <div className="flex items-center gap-3 py-1">
      {/* biome-ignore lint/a11y/useMediaCaption: what it says is what is to be found out */}
      <audio
        ref={sound}
        preload="none"
        src={`/api/items/${item}/sound`}
        onPlay={() => setPlaying(true)}
        onPause={() => setPlaying(false)}
        onEnded={() => setPlaying(false)}
        onTimeUpdate={(event) => setAt(event.currentTarget.currentTime)}
        onError={() => setBroken(true)}
      />
      <Button look="line" onClick={toggle}>
        {playing ? 'Pause' : 'Listen'}
      </Button>
      <span className="fig text-ink-3">
        {clockOf(at)}
        {seconds === null ? '' : ` of ${clockOf(seconds)}`}
      </span>
      {seconds === null ? null : (
        <span className="relative block h-2 flex-1 border border-rule-strong" aria-hidden>
          <span className="absolute inset-y-0 left-0 bg-ink" style={{ width: `${Math.min(1, at / seconds) * 100}%` }} />
        </span>
      )}
      {broken ? <span className="text-small text-red">This browser cannot play it.</span> : null}
    </div>
  );
}
