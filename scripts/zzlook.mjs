import { chromium } from '@playwright/test';

const base = 'http://127.0.0.1:4300';
export async function look(size, act) {
  const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const c = await b.newContext({ viewport: size });
  await c.request.post(`${base}/api/session`, {
    data: { email: 'ines@crockhaven.example', password: 'salt-and-patience' },
  });
  const p = await c.newPage();
  try {
    await act(p, base, c);
  } finally {
    await b.close();
  }
}
