import { useQuery } from '@tanstack/react-query';
import { read } from '../api/queries.ts';
import { Head } from '../design/index.ts';
import { count } from '../words/figures.ts';
import { clock } from '../words/time.ts';
import { Destinations } from './Destinations.tsx';
import { Keys } from './Keys.tsx';
import { LabelList } from './LabelList.tsx';
import { Limit } from './Limit.tsx';
import { ActList, People } from './People.tsx';
import { ServiceList } from './ServiceList.tsx';
import { You } from './You.tsx';

/** Services with test and price, the month's limit, people, and what runs now. */
export default function Settings() {
  const owner = useQuery(read.session()).data?.role === 'owner';
  return (
    <>
      <div className="flex h-[68px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Settings</h1>
        <span className="text-ink-3">{owner ? 'services, people, system' : 'an owner can change what is here'}</span>
      </div>
      <div className="-mx-8 grid flex-1 grid-cols-[728fr_552fr] border-t border-ink max-[1100px]:grid-cols-1">
        <section className="flex flex-col gap-6 px-8 pb-8">
          <ServiceList owner={owner} />
          <Destinations owner={owner} />
          <LabelList />
          <Limit owner={owner} />
        </section>
        <section className="flex flex-col gap-6 border-l border-rule px-6 pr-8 pb-8 max-[1100px]:border-l-0 max-[1100px]:px-8 max-[1100px]:pt-8">
          <You />
          {owner ? <People /> : null}
          {owner ? <Keys /> : null}
          {owner ? <ActList /> : null}
          <System />
        </section>
      </div>
    </>
  );
}

function System() {
  const system = useQuery({ ...read.system(), refetchInterval: 5_000 });
  if (!system.data) return null;
  const { version, desk, workers, work } = system.data;
  return (
    <section aria-label="What runs now">
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
    </section>
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
