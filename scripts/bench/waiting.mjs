// How long a small question waits while something else goes on: asked from a thread of its own, one after the other, so
// that what this program does meanwhile is not measured.
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';

const PAUSE_MS = 10;
const GIVEN_UP_MS = 60_000;

/** @returns an end that says every wait in ms, the longest first */
export async function waitsOf(address, headers = {}) {
  const worker = new Worker(new URL(import.meta.url), { workerData: { address, headers } });
  const told = () => new Promise((resolve, reject) => worker.once('message', resolve).once('error', reject));
  await told();
  return {
    async end() {
      const waits = told();
      worker.postMessage('end');
      const all = await waits;
      await worker.terminate();
      return all;
    },
  };
}

async function ask({ address, headers }) {
  const waits = [];
  let ended = false;
  parentPort.once('message', () => {
    ended = true;
  });
  const once = async () => {
    const from = performance.now();
    // A program that came to an end answers again once it has begun anew; the wait is as long as that took.
    for (;;) {
      const response = await fetch(address, { headers }).catch(() => null);
      await response?.text().catch(() => '');
      if (response?.ok) return performance.now() - from;
      if (performance.now() - from > GIVEN_UP_MS) throw new Error(`${address} does not answer`);
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
  };
  for (let i = 0; i < 20; i++) await once();
  parentPort.postMessage('ready');
  while (!ended) {
    waits.push(await once());
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
  parentPort.postMessage(waits.sort((a, b) => b - a));
}

if (!isMainThread && workerData?.address) await ask(workerData);
