/**
 * Work that looks at something, one at a time. Asked for while it is under way it is done once more afterwards: what it
 * brings may have been read before the change that it was asked for.
 * @returns a function that ends once a look that began after the call has ended
 */
export function oneAfter(look: () => Promise<void>): () => Promise<void> {
  let running: Promise<void> | null = null;
  let next: Promise<void> | null = null;
  const begin = (): Promise<void> => {
    const now = look().finally(() => {
      if (running === now) running = null;
    });
    running = now;
    return now;
  };
  return () => {
    if (!running) return begin();
    next ??= running
      .catch(() => undefined)
      .then(() => {
        next = null;
        return begin();
      });
    return next;
  };
}
