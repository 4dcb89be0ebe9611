/** Milliseconds of processor time that something takes: whatever else the machine does meanwhile is not counted. */
export function cpuTime(work: () => unknown): number {
  const before = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}

/** The same of something that is waited for. */
export async function cpuTimeOf(work: () => Promise<unknown>): Promise<number> {
  const before = process.cpuUsage();
  await work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}
