/** Builds the thread that reads what comes from outside, unless it stands as its sources do. */
export default async function reading(): Promise<void> {
  const { buildReading } = (await import('../../../scripts/build.mjs' as string)) as {
    buildReading: () => Promise<void>;
  };
  await buildReading();
}
