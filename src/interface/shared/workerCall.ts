/** Questions to a worker that answers `{ id, answer }`, or `{ id, wrong }` with a sentence. */
export type Answered<R> = { answer: R; wrong: null } | { answer: null; wrong: string };

export function workerCall<A extends { id: number }>(begin: () => Worker) {
  let worker: Worker | null = null;
  let asked = 0;
  const waiting = new Map<number, (answered: Answered<unknown>) => void>();
  const start = () => {
    const made = begin();
    made.addEventListener("message", ({ data }: MessageEvent<{ id: number; answer?: unknown; wrong?: string }>) => {
      waiting.get(data.id)?.(
        data.wrong === undefined ? { answer: data.answer, wrong: null } : { answer: null, wrong: data.wrong },
      );
      waiting.delete(data.id);
    });
    return made;
  };
  type Asked<T> = T extends unknown ? Omit<T, "id"> : never;
  return {
    ask<R>(what: Asked<A>, moved: Transferable[] = []): Promise<Answered<R>> {
      worker ??= start();
      asked++;
      const id = asked;
      const answered = new Promise<Answered<R>>((resolve) =>
        waiting.set(id, resolve as (answered: Answered<unknown>) => void),
      );
      worker.postMessage({ id, ...what }, moved);
      return answered;
    },
    /** Ends it with all that it holds. */
    end(): void {
      worker?.terminate();
      worker = null;
      waiting.clear();
    },
  };
}
