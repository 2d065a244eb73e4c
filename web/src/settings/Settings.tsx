import { LimitStanding, type Service, Services, TestLog } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { TestLines } from '../blogs/TestLines.tsx';
import { Button, Empty, Field, Head, Loading, NumberEditor, Trouble, Word } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { amount, count, exact, money } from '../words/figures.ts';
import { clock, monthWords } from '../words/time.ts';
import { ConnectService } from './ConnectService.tsx';
import { Keys } from './Keys.tsx';
import { Pace } from './Pace.tsx';
import { ActList, People } from './People.tsx';
import { You } from './You.tsx';

/** Services with test and price, the month's limit, people, and what runs now. */
export default function Settings() {
  const services = useQuery(read.services());
  const session = useQuery(read.session()).data;
  const [connecting, setConnecting] = useState(false);
  const owner = session?.role === 'owner';
  return (
    <>
      <div className="flex h-[68px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Settings</h1>
        <span className="text-ink-3">{owner ? 'services, people, system' : 'an owner can change what is here'}</span>
      </div>
      <div className="-mx-8 grid flex-1 grid-cols-[728fr_552fr] border-t border-ink max-[1100px]:grid-cols-1">
        <section className="px-8">
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
          {services.data?.services.length === 0 && !connecting ? (
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
            {services.data?.services.map((service) => (
              <ServiceLine
                key={service.id}
                service={service}
                owner={owner}
                only={services.data.services.filter(({ role }) => role === service.role).length === 1}
              />
            ))}
          </ul>
          {connecting ? (
            <div className="pt-4">
              <ConnectService />
            </div>
          ) : null}
          <div className="pt-6">
            <Limit owner={owner} />
          </div>
        </section>
        <section className="border-l border-rule px-6 pr-8 max-[1100px]:border-l-0 max-[1100px]:px-8 max-[1100px]:pt-8">
          <You />
          {owner ? (
            <div className="pt-6">
              <People />
            </div>
          ) : null}
          {owner ? (
            <div className="pt-6">
              <Keys />
            </div>
          ) : null}
          {owner ? (
            <div className="pt-6">
              <ActList />
            </div>
          ) : null}
          <div className="pt-6 pb-8">
            <System />
          </div>
        </section>
      </div>
    </>
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
  const use = useMutation({
    mutationFn: () => call('POST', `/services/${service.id}/use`, { answer: Services }),
    onSuccess: (services) => queryClient.setQueryData(['services'], services),
  });
  const [secret, setSecret] = useState<string | null>(null);
  const test = useMutation({ mutationFn: () => call('POST', `/services/${service.id}/test`, { answer: TestLog }) });
  const put = useMutation({
    mutationFn: () => call('PUT', `/services/${service.id}/secret`, { body: { secret } }),
    onSuccess: () => {
      setSecret(null);
      test.mutate();
      void queryClient.invalidateQueries({ queryKey: ['services'] });
    },
  });
  return (
    <li className="border-b border-rule-soft py-2">
      <div className="grid grid-cols-[90px_1fr_auto_auto] items-baseline gap-x-4">
        <span className="text-ink-3">{service.role}</span>
        <span className="min-w-0">
          <span className="text-proc font-medium">{service.name}</span>{' '}
          <span className="text-small break-all text-ink-3">{service.address}</span>
          <span className="block text-small text-ink-2">
            {priceWords(service)}
            {priceWords(service) ? '; ' : ''}
            <Pace service={service} owner={owner} />; {service.hasSecret ? 'has a key' : 'no key'}
            {only ? null : service.used ? (
              <>; every step that needs a {service.role} uses this one</>
            ) : owner ? (
              <>
                ; not used:{' '}
                <Button look="word" busy={use.isPending ? 'Working' : null} onClick={() => use.mutate()}>
                  use this one
                </Button>
              </>
            ) : (
              '; not used'
            )}
          </span>
        </span>
        {owner ? (
          <span className="flex gap-4">
            <Button look="word" busy={test.isPending ? 'Testing' : null} onClick={() => test.mutate()}>
              Test
            </Button>
            <Button look="quiet" onClick={() => setSecret(secret === null ? '' : null)}>
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
      {secret === null ? null : (
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
      )}
      {test.isError ? <Trouble>{inWords(test.error)}</Trouble> : null}
      {test.data ? <TestLines lines={test.data.lines} /> : null}
    </li>
  );
}

type LimitScope = 'month' | 'day' | 'article';

function Limit({ owner }: { owner: boolean }) {
  const limit = useQuery(read.limit());
  const put = useMutation({
    mutationFn: (body: { capMicros: number | null; scope: LimitScope }) =>
      call('PUT', '/limit', { body, answer: LimitStanding }),
    onSuccess: (standing) => queryClient.setQueryData(['limit'], standing),
  });
  if (!limit.data) return null;
  const { capMicros, dayCapMicros, articleCapMicros, spentMicros, trialsMicros, testsMicros, reservedMicros, month } =
    limit.data;
  const word = (scope: LimitScope, cap: number | null) => (
    <Word
      label={scope === 'article' ? 'Limit of one article' : `Limit of the ${scope}`}
      disabled={!owner}
      editor={(close) => (
        <LimitEditor value={cap} scope={scope} onPut={(next) => put.mutate({ capMicros: next, scope })} close={close} />
      )}
    >
      {cap === null ? 'no limit' : exact(cap)}
    </Word>
  );
  return (
    <>
      <Head title="Limits" right={monthWords(month)} />
      <p className="pt-2 text-proc leading-7">
        For a month {word('month', capMicros)}, for a day {word('day', dayCapMicros)}, for one article{' '}
        {word('article', articleCapMicros)}. Work stops before a limit is passed, and goes on by itself with the next
        day or month.
      </p>
      <p className="pt-1 text-small text-ink-2">
        So far this month {money(spentMicros)}
        {trialsMicros + testsMicros > 0
          ? `, of it ${money(trialsMicros)} for trials and ${money(testsMicros)} for tests of services`
          : ''}
        {reservedMicros > 0 ? `, ${money(reservedMicros)} set aside for calls under way` : ''}.
      </p>
      {put.isError ? <Trouble>{inWords(put.error)}</Trouble> : null}
    </>
  );
}

function LimitEditor({
  value,
  scope,
  onPut,
  close,
}: {
  value: number | null;
  scope: LimitScope;
  onPut: (cap: number | null) => void;
  close: () => void;
}) {
  const each = scope === 'article' ? 10_000 : 1_000_000;
  const [wanted, setWanted] = useState<number | null>(value === null ? null : Math.round(value / each));
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onPut(wanted === null ? null : wanted * each);
        close();
      }}
    >
      <NumberEditor
        label="Limit"
        value={wanted}
        least={0}
        most={100_000}
        unit={scope === 'article' ? 'cents an article' : `€ a ${scope}`}
        none="no limit"
        onChange={setWanted}
      />
      <button type="submit" className="btn line brackets mt-2">
        Set it
      </button>
    </form>
  );
}

function System() {
  const system = useQuery({ ...read.system(), refetchInterval: 5_000 });
  if (!system.data) return null;
  const { version, desk, workers, work } = system.data;
  return (
    <>
      <Head title="What runs now" right={`Grivo ${version}`} />
      <ul className="text-small">
        <SystemLine
          says="Desk clock"
          value={`${clock(desk.now)}${desk.speed === 1 ? '' : `, ${desk.speed} times as fast`}`}
        />
        <SystemLine says="Processes" value={workers.map(({ role }) => role).join(', ') || 'none'} />
        <SystemLine says="Steps in work" value={`${count(work.running)}, ${count(work.ready)} ready to begin`} />
        <SystemLine says="Tried again soon" value={count(work.retrying)} />
        <SystemLine says="Stopped" value={count(work.stopped)} />
        <SystemLine says="Briefs waiting" value={count(work.waitingBriefs)} />
      </ul>
    </>
  );
}

function SystemLine({ says, value }: { says: string; value: string }) {
  return (
    <li className="flex h-6 items-center justify-between border-b border-rule-soft">
      <span className="text-ink-3">{says}</span>
      <span className="fig">{value}</span>
    </li>
  );
}
