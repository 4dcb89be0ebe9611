/** After tens of milliseconds on the one thread: whoever else has asked is answered in between. */
export const yieldToEventLoop = (): Promise<void> => new Promise((next) => setImmediate(next));
