/** Uniform whole numbers from the platform's cryptographic generator. */

export type FillRandom = (bytes: Uint8Array<ArrayBuffer>) => void;

const fromPlatform: FillRandom = (bytes) => {
  crypto.getRandomValues(bytes);
};

/**
 * A uniform whole number from 0 up to, but without, `below`. Drawn anew when it falls outside (rejection sampling), so
 * that no number is likelier than another.
 * @throws RangeError unless `below` is at least 1
 */
export function uniform(below: bigint, fill: FillRandom = fromPlatform): bigint {
  if (below < 1n) throw new RangeError("there is nothing to choose from");
  const bits = (below - 1n).toString(2).length;
  const bytes = new Uint8Array(Math.ceil(bits / 8));
  const mask = (1n << BigInt(bits)) - 1n;
  for (;;) {
    fill(bytes);
    let drawn = 0n;
    for (const byte of bytes) drawn = (drawn << 8n) | BigInt(byte);
    drawn &= mask;
    if (drawn < below) return drawn;
  }
}

/** log2 of a whole number of any size. */
export function log2(count: bigint): number {
  const bits = count.toString(2).length;
  const cut = Math.max(0, bits - 60);
  return Math.log2(Number(count >> BigInt(cut))) + cut;
}
