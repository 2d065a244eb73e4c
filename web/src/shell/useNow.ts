import { useEffect, useState } from 'react';

/** The desk's present moment, going on at the desk's speed from what the server said last. */
export function useNow(said: number | undefined, speed = 1, everyMs = 15_000): number | undefined {
  const [passed, setPassed] = useState(0);
  useEffect(() => {
    setPassed(0);
    if (said === undefined) return;
    const from = performance.now();
    const timer = setInterval(
      () => setPassed((performance.now() - from) * speed),
      Math.max(1_000, everyMs / Math.max(1, speed)),
    );
    return () => clearInterval(timer);
  }, [said, speed, everyMs]);
  return said === undefined ? undefined : said + passed;
}
