/** Holds the stream for the worker, which may end at any time. */
import { hold } from "./hold";

void hold((message) => chrome.runtime.sendMessage(message).catch(() => undefined));
