import {
  ByLabel,
  DeskClockSetting,
  DeskNow,
  LimitStanding,
  SpendingLimit,
  StandIns,
  SystemState,
  Today,
} from '@grivo/contract';
import { todayNow } from '../nouns/desk/today.ts';
import { workNow } from '../nouns/desk/work.ts';
import { jsonOf } from '../ports/adapters/port.ts';
import { limitStanding, setLimit } from '../ports/money/limits.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** The version of the program, as its description and system page say it. */
export const VERSION = '0.1.0';

/** The desk: today, the clock, the limit, and what runs now. */
export function deskRoutes(product: Product): Route[] {
  const { ground, bell } = product;
  return [
    route({
      method: 'get',
      path: '/today',
      shared: true,
      says: 'What went out, what wants a person, what articles cost',
      role: 'proofreader',
      answer: Today,
      query: ByLabel,
      handle: async ({ person, query: { label } }) => ({ ...(await todayNow(ground, label)), role: person.role }),
    }),
    route({
      method: 'get',
      path: '/limit',
      shared: true,
      says: 'The spending limit of the month and what is used of it',
      role: 'proofreader',
      query: ByLabel,
      answer: LimitStanding,
      handle: async ({ query: { label } }) => limitStanding(ground, label),
    }),
    route({
      method: 'put',
      path: '/limit',
      says: 'Sets or, with null, lifts a spending limit: of the month, the day or one article',
      role: 'owner',
      body: SpendingLimit,
      answer: LimitStanding,
      handle: async ({ body }) => {
        await setLimit(ground, body.capMicros, body.scope);
        bell.ring({ kind: 'event' });
        return limitStanding(ground);
      },
    }),
    ...runningRoutes(product),
  ];
}

/** The desk clock, and what runs now. */
function runningRoutes(product: Product): Route[] {
  const { ground, bell } = product;
  const { desk } = ground;
  return [
    route({
      method: 'put',
      path: '/desk-clock',
      says: 'Puts the desk clock to a moment, or back to the real one, and sets its speed',
      role: 'owner',
      body: DeskClockSetting,
      answer: DeskNow,
      handle: async ({ body: { at, speed } }) => {
        await desk.set(at === null ? ground.now() : Date.parse(at), speed);
        bell.ring({ kind: 'settings' });
        bell.ring({ kind: 'event' });
        return { now: new Date(desk.now()).toISOString(), speed };
      },
    }),
    route({
      method: 'get',
      path: '/stand-ins',
      says: 'The stand-ins of a demonstration, as a person would connect them',
      role: 'owner',
      answer: StandIns,
      handle: async () => introduced(product),
    }),
    route({
      method: 'get',
      path: '/system',
      says: 'What runs now: the clocks, the processes and the work at hand',
      role: 'proofreader',
      answer: SystemState,
      handle: async () => ({ version: VERSION, ...(await workNow(ground)) }),
    }),
  ];
}

async function introduced({ standIns, tools }: Product): Promise<StandIns> {
  const none: StandIns = { services: [], blogs: [] };
  if (!standIns) return none;
  const outcome = await tools.network.call({
    method: 'GET',
    address: `${standIns}/control/introduction`,
    timeLimitMs: 3_000,
    signal: AbortSignal.timeout(4_000),
  });
  if (outcome.kind !== 'reply') return none;
  const parsed = jsonOf(outcome.reply.body);
  return (parsed.ok ? StandIns.safeParse(parsed.value).data : undefined) ?? none;
}
