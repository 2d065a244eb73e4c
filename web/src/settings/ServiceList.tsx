import { type Service, Services, TestLog } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { TestLines } from '../blogs/TestLines.tsx';
import { Button, Empty, Field, Head, Loading, Trouble } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { amount, exact } from '../words/figures.ts';
import { ConnectService } from './ConnectService.tsx';
import { Pace } from './Pace.tsx';

/** Services by role: tested, given a new key, renamed, and another used in place of one. */
export function ServiceList({ owner }: { owner: boolean }) {
  const services = useQuery(read.services());
  const [connecting, setConnecting] = useState(false);
  const list = services.data?.services ?? [];
  return (
    <section aria-label="Services">
      <Head
        title="Services"
        right={
          owner ? (
            <Button look="quiet" onClick={() => setConnecting(!connecting)}>
              {connecting ? 'Not now' : 'Connect one'}
            </Button>
          ) : (
            ''
          )
        }
      />
      {services.isPending ? <Loading rows={3} /> : null}
      {services.isError ? <Trouble>{inWords(services.error)}</Trouble> : null}
      {services.data && list.length === 0 && !connecting ? (
        <Empty
          next={
            <Button look="word" onClick={() => setConnecting(true)}>
              Connect a writer
            </Button>
          }
        >
          No service yet: nothing can be written.
        </Empty>
      ) : null}
      <ul>
        {list.map((service) => (
          <ServiceLine
            key={service.id}
            service={service}
            owner={owner}
            only={list.filter(({ role }) => role === service.role).length === 1}
          />
        ))}
      </ul>
      {connecting ? (
        <div className="pt-4">
          <ConnectService />
        </div>
      ) : null}
    </section>
  );
}

function priceWords({ role, price }: Service): string {
  if (role === 'illustrator') return `${exact(price.microsPerPicture)} a picture`;
  if (role === 'transcriber') return `${exact(price.microsPerMinute)} a minute of sound`;
  if (role !== 'writer') return price.microsPerThousandIn + price.microsPerThousandOut === 0 ? 'no price' : '';
  // A thousand words are about 1,350 tokens of English prose.
  return `${exact(price.microsPerThousandIn)} in, ${exact(price.microsPerThousandOut)} out per 1,000 tokens; about ${amount(Math.round(price.microsPerThousandOut * 1.35))} € for 1,000 words`;
}

function ServiceLine({ service, owner, only }: { service: Service; owner: boolean; only: boolean }) {
  const [keying, setKeying] = useState(false);
  const test = useMutation({ mutationFn: () => call('POST', `/services/${service.id}/test`, { answer: TestLog }) });
  const price = priceWords(service);
  return (
    <li className="border-b border-rule-soft py-2">
      <div className="grid grid-cols-[90px_1fr_auto_auto] items-baseline gap-x-4">
        <span className="text-ink-3">{service.role}</span>
        <span className="min-w-0">
          <span className="text-proc font-medium">{service.name}</span>{' '}
          <span className="text-small break-all text-ink-3">{service.address}</span>
          <span className="block text-small text-ink-2">
            {price === '' ? '' : `${price}; `}
            <Pace service={service} owner={owner} />; {service.hasSecret ? 'has a key' : 'no key'}
            {only ? null : <Use service={service} owner={owner} />}
          </span>
        </span>
        {owner ? (
          <span className="flex gap-4">
            <Button look="word" busy={test.isPending ? 'Testing' : null} onClick={() => test.mutate()}>
              Test
            </Button>
            <Button look="quiet" onClick={() => setKeying(!keying)}>
              New key
            </Button>
          </span>
        ) : null}
        {owner ? (
          <span className="flex flex-wrap">
            <KeepMenu of="services" it={service} />
          </span>
        ) : null}
      </div>
      {keying ? (
        <NewKey
          service={service.id}
          onSaved={() => {
            setKeying(false);
            test.mutate();
          }}
        />
      ) : null}
      {test.isError ? <Trouble>{inWords(test.error)}</Trouble> : null}
      {test.data ? <TestLines lines={test.data.lines} /> : null}
    </li>
  );
}

/** Of several of a role, which is used. */
function Use({ service: { id, role, used }, owner }: { service: Service; owner: boolean }) {
  const use = useMutation({
    mutationFn: () => call('POST', `/services/${id}/use`, { answer: Services }),
    onSuccess: (services) => queryClient.setQueryData(['services'], services),
  });
  if (used) return <>; every step that needs a {role} uses this one</>;
  if (!owner) return '; not used';
  return (
    <>
      ; not used:{' '}
      <Button look="word" busy={use.isPending ? 'Working' : null} onClick={() => use.mutate()}>
        use this one
      </Button>
    </>
  );
}

function NewKey({ service, onSaved }: { service: string; onSaved: () => void }) {
  const [secret, setSecret] = useState('');
  const put = useMutation({
    mutationFn: () => call('PUT', `/services/${service}/secret`, { body: { secret } }),
    onSuccess: () => {
      void queryClient.invalidateQueries({ queryKey: ['services'] });
      onSaved();
    },
  });
  return (
    <form
      className="flex items-end gap-3 py-2 pl-[90px]"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        put.mutate();
      }}
    >
      <div className="w-72">
        <Field
          label="New key"
          type="password"
          autoComplete="off"
          autoFocus
          required
          value={secret}
          onChange={(event) => setSecret(event.target.value)}
          wrong={put.isError ? inWords(put.error) : null}
        />
      </div>
      <Button type="submit">Save and test</Button>
    </form>
  );
}
