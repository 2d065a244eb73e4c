import { MadePipeline, type PipelineWhole, ReadProcedure } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { type RefObject, useRef } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { call, inWords, Refused } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Trouble, useMay } from '../design/index.ts';
import { isChanged, useDraft } from './draft.ts';

/** A YAML file larger than this is none of ours. */
const MOST_BYTES = 1_000_000;

/** What is done with a procedure as a whole: out to a file and in from one, once more, on paper. */
export function PipelineMenu({ pipeline }: { pipeline: PipelineWhole }) {
  const file = useRef<HTMLInputElement>(null);
  const go = useNavigate();
  const [, setSearch] = useSearchParams();
  const { draft, edit } = useDraft();
  const document = draft?.pipeline === pipeline.id ? draft.history.now : pipeline.document;
  const open = useMutation({
    mutationFn: async (chosen: File) => {
      if (chosen.size > MOST_BYTES) throw new TooLarge();
      return call('POST', '/procedures/read', { body: { yaml: await chosen.text() }, answer: ReadProcedure });
    },
    onSuccess: (read) => {
      edit(() => read.document);
      setSearch({});
    },
  });
  const copy = useMutation({
    mutationFn: () =>
      call('POST', '/pipelines', { body: { name: `${pipeline.name}, copy`, document }, answer: MadePipeline }),
    onSuccess: ({ id }) => {
      void queryClient.invalidateQueries({ queryKey: ['pipelines'] });
      void go(`/pipelines/${id}`);
    },
  });
  const may = useMay();
  const error = open.error ?? copy.error;
  return (
    <>
      {may ? (
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger asChild>
            <button type="button" className="act quiet brackets">
              file
            </button>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className="pop !min-w-[260px] !p-1" sideOffset={8} align="end" collisionPadding={12}>
              <Items pipeline={pipeline} onLoad={() => file.current?.click()} onCopy={() => copy.mutate()} />
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      ) : null}
      {may ? <YamlFile file={file} onChosen={open.mutate} /> : null}
      {error ? <NotRead error={error} onLeave={() => (open.isError ? open.reset() : copy.reset())} /> : null}
    </>
  );
}

/** Unseen: the menu opens it. */
function YamlFile({ file, onChosen }: { file: RefObject<HTMLInputElement | null>; onChosen: (file: File) => void }) {
  return (
    <input
      ref={file}
      type="file"
      accept=".yaml,.yml,application/yaml"
      aria-label="A YAML file with a procedure"
      className="sr-only"
      tabIndex={-1}
      onChange={(event) => {
        const [chosen] = event.target.files ?? [];
        if (chosen) onChosen(chosen);
        event.target.value = '';
      }}
    />
  );
}

const ITEM = 'choice !block cursor-pointer outline-none';

function Items({ pipeline, onLoad, onCopy }: { pipeline: PipelineWhole; onLoad: () => void; onCopy: () => void }) {
  const { draft } = useDraft();
  return (
    <>
      <DropdownMenu.Item asChild className={ITEM}>
        <a href={`/api/pipelines/${pipeline.id}/procedure.yaml`} download={`${fileName(pipeline.name)}.yaml`}>
          Save version {pipeline.version} as a YAML file
          {isChanged(draft) ? <span className="block text-small text-ink-3">without unsaved changes</span> : null}
        </a>
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={onLoad}>
        Load a YAML file into this pipeline…
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={onCopy}>
        Make a copy of this pipeline
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={() => setTimeout(() => window.print())}>
        Print
      </DropdownMenu.Item>
    </>
  );
}

/** Why a file was not taken, each of its faults with its place. */
function NotRead({ error, onLeave }: { error: Error; onLeave: () => void }) {
  const places = (error instanceof Refused && error.problem.places) || [];
  return (
    <div className="basis-full pb-1">
      <Trouble
        actions={
          <Button look="word" onClick={onLeave}>
            Close this
          </Button>
        }
      >
        {error instanceof TooLarge
          ? 'That file is larger than a megabyte, so it is no procedure. Nothing was changed.'
          : places.length > 1
            ? `That file has ${places.length} faults; nothing was changed.`
            : inWords(error)}
      </Trouble>
      {places.length > 1 ? (
        <ul className="text-small text-ink-2">
          {places.slice(0, 12).map(({ place, problem }) => (
            <li key={`${place} ${problem}`}>
              <span className="fig">{place}</span>: {problem}
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}

class TooLarge extends Error {}

function fileName(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'procedure'
  );
}
