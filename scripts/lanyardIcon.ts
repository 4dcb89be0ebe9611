/** Lanyard's picture: a key tag with cut corners and a punched hole; filled when connected, outlined when not. */
import { crc32, deflateSync } from "node:zlib";

/** @returns a PNG (ISO/IEC 15948), `size` pixels square */
export function keyPicture(size: number, filled: boolean): Buffer {
  const rows: number[] = [];
  for (let y = 0; y < size; y++) {
    rows.push(0);
    for (let x = 0; x < size; x++) rows.push(...pixel((x + 0.5) / size, (y + 0.5) / size, size, filled));
  }
  const header = Buffer.alloc(13);
  header.writeUInt32BE(size, 0);
  header.writeUInt32BE(size, 4);
  header.set([8, 6, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk("IHDR", header),
    chunk("IDAT", deflateSync(Buffer.from(rows))),
    chunk("IEND", Buffer.alloc(0)),
  ]);
}

/** Four samples a pixel smooth the cut corners. */
function pixel(x: number, y: number, size: number, filled: boolean): number[] {
  const step = 0.25 / size;
  let inside = 0;
  for (const dx of [-step, step]) for (const dy of [-step, step]) if (isInk(x + dx, y + dy, size, filled)) inside++;
  return [0x5c, 0x8a, 0x72, Math.round((inside / 4) * 255)];
}

function isInk(x: number, y: number, size: number, filled: boolean): boolean {
  if (!isTag(x, y, 0)) return false;
  if (Math.hypot(x - 0.5, y - 0.27) < 0.1) return false;
  return filled || !isTag(x, y, Math.max(1.5 / size, 0.07));
}

function isTag(x: number, y: number, inset: number): boolean {
  const [left, right, top, bottom] = [0.16 + inset, 0.84 - inset, 0.04 + inset, 0.96 - inset];
  if (x < left || x > right || y < top || y > bottom) return false;
  const corner = 0.22;
  return x - left + (y - top) > corner - inset * 0.6 && right - x + (y - top) > corner - inset * 0.6;
}

function chunk(type: string, data: Buffer): Buffer {
  const length = Buffer.alloc(4);
  length.writeUInt32BE(data.length);
  const body = Buffer.concat([Buffer.from(type, "latin1"), data]);
  const sum = Buffer.alloc(4);
  sum.writeUInt32BE(crc32(body));
  return Buffer.concat([length, body, sum]);
}
