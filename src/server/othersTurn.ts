/** After tens of milliseconds on the one thread: whoever else has asked is answered in between. */
export const othersTurn = (): Promise<void> => new Promise((next) => setImmediate(next));
