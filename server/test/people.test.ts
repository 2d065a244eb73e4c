import type { Act, Session } from '@grivo/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { type Ask, serve } from './ground/http.ts';
import { type World, world } from './ground/world.ts';

let w: World;
let api: Awaited<ReturnType<typeof serve>>;
let owner: Ask;

beforeAll(async () => {
  w = await world('one', { trustedProxies: ['127.0.0.1'] });
  api = await serve(w);
  owner = await api.as('owner');
});
afterAll(async () => {
  api.close();
  await w.close();
});

const PASSWORD = 'kiln-shelf-seven-glaze';
let addresses = 0;

/** A person of their own, and ways to sign them in from addresses nobody else uses. */
async function somebody(role = 'editor', name = 'Tove Arden') {
  const email = `tove${++addresses}@kiln.example`;
  const { body } = await owner<{ id: string }>('POST', '/people', { email, name, role, password: PASSWORD });
  const signIn = async (password = PASSWORD, from = `203.0.113.${++addresses}`) => {
    const response = await fetch(`${api.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-forwarded-for': from },
      body: JSON.stringify({ email, password }),
    });
    return { status: response.status, cookie: response.headers.get('set-cookie') ?? '' };
  };
  const as = (cookie: string) => (method: string, path: string, body?: unknown) =>
    fetch(`${api.address}/api${path}`, {
      method,
      headers: { cookie: cookie.split(';')[0]!, 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  return { id: body.id, email, signIn, as };
}

/** An event stream of somebody; resolves when the other side ends it. */
async function stream(cookie: string): Promise<{ ended: Promise<boolean> }> {
  const response = await fetch(`${api.address}/api/events`, { headers: { cookie: cookie.split(';')[0]! } });
  const reader = response.body!.getReader();
  await reader.read();
  const ended = (async () => {
    const until = Date.now() + 10_000;
    while (Date.now() < until) {
      const late = new Promise<'late'>((resolve) => setTimeout(() => resolve('late'), until - Date.now()));
      const read = await Promise.race([reader.read(), late]);
      if (read === 'late') return false;
      if (read.done) return true;
    }
    return false;
  })();
  return { ended };
}

describe('passwords', () => {
  test('common ones, and ones made of name and address, are refused with the reason, for new people and new passwords', async () => {
    for (const password of ['password123', '1234567890', 'qwertyuiop', 'aaaaaaaaaaaa', 'Tove.Arden.1']) {
      const made = await owner('POST', '/people', {
        email: 'weak@kiln.example',
        name: 'Tove Arden',
        role: 'editor',
        password,
      });
      expect(made.status, password).toBe(422);
      expect(made.problem.detail).toContain('among the first that would be guessed');
    }
    const { signIn, as } = await somebody();
    const here = as((await signIn()).cookie);
    expect((await here('PUT', '/session/password', { now: PASSWORD, next: 'letmein12345' })).status).toBe(422);
  });

  test('one’s own is changed with the one before; every other session ends, this one stays', async () => {
    const { signIn, as, email } = await somebody();
    const [one, two] = [await signIn(), await signIn()];
    const wrong = await as(one.cookie)('PUT', '/session/password', {
      now: 'not-this-one',
      next: 'clay-and-ash-9-bowls',
    });
    expect(wrong.status).toBe(422);
    const open = await stream(two.cookie);
    const changed = await as(one.cookie)('PUT', '/session/password', { now: PASSWORD, next: 'clay-and-ash-9-bowls' });
    expect(changed.status).toBe(204);
    expect((await as(one.cookie)('GET', '/session')).status).toBe(200);
    expect((await as(two.cookie)('GET', '/session')).status).toBe(401);
    expect(await open.ended).toBe(true);
    expect((await signIn()).status).toBe(401);
    expect((await signIn('clay-and-ash-9-bowls')).status).toBe(200 + 4);
    const { acts } = (await owner<{ acts: Act[] }>('GET', '/acts')).body;
    expect(acts.find(({ what }) => what === 'password changed')).toMatchObject({ by: 'Tove Arden' });
    expect(JSON.stringify(acts)).not.toContain('clay-and-ash');
    expect(acts.some(({ about }) => about.includes(email))).toBe(true);
  });

  test('an owner sets one for who lost theirs; nobody else may', async () => {
    const { id, signIn, as } = await somebody();
    const { cookie } = await signIn();
    expect((await as(cookie)('PUT', `/people/${id}/password`, { next: 'clay-and-ash-9-bowls' })).status).toBe(403);
    expect((await owner('PUT', `/people/${id}/password`, { next: 'clay-and-ash-9-bowls' })).status).toBe(204);
    expect((await as(cookie)('GET', '/session')).status).toBe(401);
    expect((await signIn('clay-and-ash-9-bowls')).status).toBe(204);
  });
});

describe('sessions', () => {
  test('one sees where one is signed in, ends one, ends all others; streams end with them', async () => {
    const { signIn, as } = await somebody();
    const all = [await signIn(PASSWORD, '198.51.100.7'), await signIn(), await signIn()];
    const here = as(all[0]!.cookie);
    const { sessions } = (await (await here('GET', '/session/all')).json()) as { sessions: Session[] };
    expect(sessions).toHaveLength(3);
    expect(sessions.find((one) => one.here)).toMatchObject({ from: '198.51.100.7' });
    const other = sessions.find((one) => !one.here)!;
    expect((await here('DELETE', `/session/all/${other.id}`)).status).toBe(204);
    expect((await here('DELETE', `/session/all/${other.id}`)).status).toBe(404);
    expect((await here('DELETE', '/session/others')).status).toBe(204);
    expect(((await (await here('GET', '/session/all')).json()) as { sessions: Session[] }).sessions).toHaveLength(1);
    const open = await stream(all[0]!.cookie);
    expect((await here('DELETE', '/session')).status).toBe(204);
    expect(await open.ended).toBe(true);
  });

  test('one that nobody used for long has ended; what a page reads by itself is no use of it', async () => {
    const { id, signIn, as } = await somebody();
    const { cookie } = await signIn();
    const { db } = w.product.ground;
    const usedAgo = (hours: number) =>
      db.run('UPDATE session SET seen_at = DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? HOUR) WHERE person = ?', [hours, id]);
    const hoursAgo = async () =>
      Number(
        (
          await db.rows<{ h: number }>(
            'SELECT TIMESTAMPDIFF(HOUR, seen_at, UTC_TIMESTAMP(3)) AS h FROM session WHERE person = ?',
            [id],
          )
        )[0]!.h,
      );
    await usedAgo(11);
    const unattended = await fetch(`${api.address}/api/session`, {
      headers: { cookie: cookie.split(';')[0]!, 'x-grivo-unattended': '1' },
    });
    expect([unattended.status, await hoursAgo()]).toEqual([200, 11]);
    expect([(await as(cookie)('GET', '/session')).status, await hoursAgo()]).toEqual([200, 0]);
    await usedAgo(13);
    expect((await as(cookie)('GET', '/session')).status).toBe(401);
  });

  test('behind https the cookie is bound to its host and never sent in the clear, and the browser is told to stay there', async () => {
    const { email } = await somebody();
    const response = await fetch(`${api.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-forwarded-proto': 'https', 'x-forwarded-for': '203.0.113.200' },
      body: JSON.stringify({ email, password: PASSWORD }),
    });
    expect(response.headers.get('set-cookie')).toMatch(
      /^__Host-grivo_session=.*; Path=\/;.*HttpOnly; Secure; SameSite=Strict/,
    );
    expect(response.headers.get('strict-transport-security')).toContain('max-age=31536000');
    const plain = await fetch(`${api.address}/api/health`);
    expect(plain.headers.get('strict-transport-security')).toBe(null);
    // The cookie of plain http is worth nothing behind https.
    const cookie = response.headers.get('set-cookie')!.split(';')[0]!.replace('__Host-', '');
    const asked = await fetch(`${api.address}/api/session`, { headers: { cookie, 'x-forwarded-proto': 'https' } });
    expect(asked.status).toBe(401);
  });
});

describe('people', () => {
  test('renamed, given another role at once, removed with sessions and keys; the address may be used again', async () => {
    const { id, email, signIn, as } = await somebody('owner');
    const { cookie } = await signIn();
    const key = (await (await as(cookie)('POST', '/keys', { name: 'A till', scope: 'look' })).json()) as {
      key: string;
    };
    const withKey = () => fetch(`${api.address}/api/session`, { headers: { authorization: `Bearer ${key.key}` } });
    expect((await withKey()).status).toBe(200);
    expect((await owner('PUT', `/people/${id}`, { name: 'Tove Brand', role: 'proofreader' })).body).toMatchObject({
      name: 'Tove Brand',
      role: 'proofreader',
    });
    expect((await as(cookie)('GET', '/people')).status).toBe(403);
    const open = await stream(cookie);
    expect((await owner('DELETE', `/people/${id}`)).status).toBe(204);
    expect((await as(cookie)('GET', '/session')).status).toBe(401);
    expect((await withKey()).status).toBe(401);
    expect(await open.ended).toBe(true);
    expect((await signIn()).status).toBe(401);
    expect((await owner('DELETE', `/people/${id}`)).status).toBe(404);
    const anew = await owner('POST', '/people', { email, name: 'Tove Brand', role: 'editor', password: PASSWORD });
    expect(anew.status).toBe(201);
    const { acts } = (await owner<{ acts: Act[] }>('GET', '/acts')).body;
    expect(acts.map(({ what }) => what)).toEqual(
      expect.arrayContaining(['person added', 'person changed', 'person removed', 'key made', 'signed in']),
    );
    expect(acts.find(({ what }) => what === 'person changed')!.about).toContain('owner to proofreader');
  });

  test('the last owner can neither go nor stop being one, also when two go at once', async () => {
    const { people } = (await owner<{ people: { id: string; role: string }[] }>('GET', '/people')).body;
    const first = people.find(({ role }) => role === 'owner')!;
    expect((await owner('PUT', `/people/${first.id}`, { role: 'editor' })).status).toBe(409);
    expect((await owner('DELETE', `/people/${first.id}`)).status).toBe(409);
    const { id } = await somebody('owner', 'Second Owner');
    const gone = await Promise.all([
      owner('PUT', `/people/${id}`, { role: 'editor' }),
      owner('PUT', `/people/${first.id}`, { role: 'editor' }),
    ]);
    expect(gone.filter(({ status }) => status === 200)).toHaveLength(1);
    const owners = await w.product.ground.db.rows("SELECT id FROM person WHERE role = 'owner' AND removed_at IS NULL");
    expect(owners).toHaveLength(1);
    await w.product.ground.db.run("UPDATE person SET role = 'owner' WHERE id = ?", [first.id]);
  });

  test('keys act on no session or password, may have a last day, and are gone after it', async () => {
    const made = await owner<{ id: string; key: string }>('POST', '/keys', {
      name: 'A till',
      scope: 'edit',
      until: '2999-01-31',
    });
    const withKey = (method: string, path: string, body?: unknown) =>
      fetch(`${api.address}/api${path}`, {
        method,
        headers: { authorization: `Bearer ${made.body.key}`, 'content-type': 'application/json' },
        ...(body ? { body: JSON.stringify(body) } : {}),
      });
    expect((await withKey('GET', '/session')).status).toBe(200);
    for (const [method, path] of [
      ['GET', '/session/all'],
      ['DELETE', '/session/others'],
    ] as const)
      expect((await withKey(method, path)).status, path).toBe(403);
    expect((await withKey('PUT', '/session/password', { now: 'x', next: 'clay-and-ash-9-bowls' })).status).toBe(403);
    await w.product.ground.db.run(
      'UPDATE access_key SET ends_at = DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 SECOND) WHERE id = ?',
      [made.body.id],
    );
    expect((await withKey('GET', '/session')).status).toBe(401);
    expect((await owner('POST', '/keys', { name: 'x', scope: 'look', until: 'soon' })).status).toBe(422);
  });

  test('an answer that held a key is not kept: the same request again is told so and makes no second one', async () => {
    const ask = () =>
      owner<{ key?: string }>('POST', '/keys', { name: 'Once', scope: 'look' }, { 'idempotency-key': 'once-1' });
    const [first, again] = [await ask(), await ask()];
    expect([first.status, again.status]).toEqual([201, 409]);
    expect(again.problem.detail).toContain('shown once');
    const kept = await w.product.ground.db.rows('SELECT * FROM idempotency');
    expect(JSON.stringify(kept)).not.toContain(first.body.key!);
    const { keys } = (await owner<{ keys: { name: string }[] }>('GET', '/keys')).body;
    expect(keys.filter(({ name }) => name === 'Once')).toHaveLength(1);
  });
});

describe('throttles', () => {
  test('wrong tries are counted by where they come from and by the account; who signs in rightly is not kept out', async () => {
    const { signIn } = await somebody();
    // From one address at one account: ten.
    for (let n = 0; n < 10; n++) expect((await signIn('wrong-one-again', '203.0.113.77')).status).toBe(401);
    expect((await signIn('wrong-one-again', '203.0.113.77')).status).toBe(429);
    // From another address the account still opens, also for long.
    for (let n = 0; n < 25; n++) expect((await signIn(PASSWORD, '203.0.113.78')).status).toBe(204);
    // From many addresses at one account: sixty in all.
    let last = 0;
    for (let n = 0; n < 60 && last !== 429; n++)
      last = (await signIn('wrong-one-again', `198.51.100.${100 + n}`)).status;
    expect(last).toBe(429);
  });

  test('somebody who guesses addresses of hooks keeps out only himself', async () => {
    const { body } = await owner<{ id: string }>('POST', '/sources', {
      name: 'Kiln orders',
      settings: { kind: 'hook', signed: false },
    });
    const door = await owner<{ address: string; secret: string | null }>('GET', `/sources/${body.id}/hook`);
    const at = new URL(door.body.address).pathname;
    const post = (path: string, key: string) =>
      fetch(`${api.address}${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-forwarded-for': '203.0.113.9' },
        body: JSON.stringify({ subject: `Celadon ${key}`, key }),
      });
    const seen = new Set<number>();
    for (let n = 0; n < 70; n++) seen.add((await post(`/hooks/guess-${n}`, 'x')).status);
    expect([...seen]).toEqual([404, 429]);
    expect((await post(at, 'one')).status).toBe(202);
  });

  test('what calls of a hook are signed with is for owners', async () => {
    const { body } = await owner<{ id: string }>('POST', '/sources', { name: 'Signed', settings: { kind: 'hook' } });
    const { signIn, as } = await somebody();
    const here = as((await signIn()).cookie);
    const door = (await (await here('GET', `/sources/${body.id}/hook`)).json()) as { secret: string | null };
    expect(door.secret).toBe(null);
    expect((await here('POST', `/sources/${body.id}/hook/renew`)).status).toBe(403);
    expect((await owner<{ secret: string }>('GET', `/sources/${body.id}/hook`)).body.secret).toMatch(/^whsec_/);
  });
});
