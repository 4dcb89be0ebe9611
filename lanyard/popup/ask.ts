import type { WindowAsk } from "../shared/messages";

/** Asks the worker. */
export const ask = <R>(message: WindowAsk): Promise<R> => chrome.runtime.sendMessage(message) as Promise<R>;
