import { type Service, Services } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { NumberEditor, Trouble, Word } from '../design/index.ts';
import { count, plural } from '../words/figures.ts';

type Change = { permits?: number; callsAMinute?: number | null };

/** Calls at once, and calls a minute, of a service; a change is sent once its word is closed. */
export function Pace({ service, owner }: { service: Service; owner: boolean }) {
  const [change, setChange] = useState<Change>({});
  const put = useMutation({
    mutationFn: (body: Change) => call('PUT', `/services/${service.id}`, { body, rev: service.rev, answer: Services }),
    onSuccess: (services) => queryClient.setQueryData(['services'], services),
    onError: () => void queryClient.invalidateQueries({ queryKey: ['services'] }),
    onSettled: () => setChange({}),
  });
  const onOpen = (open: boolean) => {
    if (!open && Object.keys(change).length > 0) put.mutate(change);
  };
  const { permits, callsAMinute } = { ...service, ...change };
  return (
    <>
      <Word
        label={`Calls at once of ${service.name}`}
        disabled={!owner}
        onOpen={onOpen}
        editor={() => (
          <NumberEditor
            label="Calls at once, over all workers"
            value={permits}
            least={1}
            most={100}
            unit="calls"
            onChange={(next) => next !== null && setChange({ permits: next })}
          />
        )}
      >
        {plural(permits, 'call')} at once
      </Word>
      ,{' '}
      <Word
        label={`Calls a minute of ${service.name}`}
        disabled={!owner}
        onOpen={onOpen}
        editor={() => (
          <NumberEditor
            label="Calls a minute, over all workers"
            value={callsAMinute}
            least={1}
            most={10_000}
            unit="calls"
            none="at any pace"
            consequence="Calls beyond it wait for their turn."
            onChange={(next) => setChange({ callsAMinute: next })}
          />
        )}
      >
        {callsAMinute === null ? 'at any pace' : `${count(callsAMinute)} a minute`}
      </Word>
      {put.isError ? <Trouble>{inWords(put.error)}</Trouble> : null}
    </>
  );
}
