/** Attachments are sealed and travel in pieces of this many bytes; only the last is shorter. */
export const PIECE_BYTES = 1024 * 1024;
