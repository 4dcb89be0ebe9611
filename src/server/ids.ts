/** Identifiers: UUIDv7 (RFC 9562 section 5.7), which sort by time. */
import { v7 } from "uuid";

export const uuidv7 = (): string => v7();
/** An id for something that happened at `at` (milliseconds). */
export const uuidv7At = (at: number): string => v7({ msecs: at });
