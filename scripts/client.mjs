// What scripts do through the API: signing in, connecting the stand-ins, waiting.

/** A signed-in way to the API. */
export async function client(address, { email, password }) {
  const signed = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  if (!signed.ok) throw new Error(`sign-in answered ${signed.status}: ${await signed.text()}`);
  const cookie = signed.headers.get('set-cookie').split(';')[0];
  return async (method, path, body, headers = {}) => {
    const response = await fetch(`${address}/api${path}`, {
      method,
      headers: { cookie, 'content-type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const text = await response.text();
    if (!response.ok) throw new Error(`${method} ${path} answered ${response.status}: ${text}`);
    return text === '' ? null : JSON.parse(text);
  };
}

export async function until(check, ms, what) {
  const end = Date.now() + ms;
  while (Date.now() < end) {
    if (await check()) return;
    await new Promise((resolve) => setTimeout(resolve, 60));
  }
  throw new Error(`${what} did not come about within ${ms / 1_000} s`);
}

/** Waits until nothing is in work that does not wait for the desk clock. Returns the next moment something is due by it, or null. */
export async function quiet(call, ms = 120_000) {
  let due = null;
  await until(
    async () => {
      const { work } = await call('GET', '/system');
      due = work.nextDueDesk;
      return work.ready + work.running + work.retrying === 0;
    },
    ms,
    'the end of all work at hand',
  );
  return due;
}
