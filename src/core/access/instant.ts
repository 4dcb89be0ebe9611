/** Milliseconds since 1970-01-01 UTC. */
export type Instant = number;
