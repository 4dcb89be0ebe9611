/** How long what was put in the bin can be restored. */
export const BIN_DAYS = 30;

/** Whole days left at `at`, both in UTC milliseconds; 0 on the last one. */
export const binDaysLeft = (binnedAt: number, at: number): number =>
  Math.max(0, BIN_DAYS - Math.floor((at - binnedAt) / (24 * 3_600_000)));
