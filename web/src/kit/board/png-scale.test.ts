import { crc32, deflateSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { withScale } from './png-scale';

/** The chunks of a PNG, read apart from what writes them: their types, data, and whether their sums are right. */
function chunksOf(png: Uint8Array): { type: string; data: Buffer; isRight: boolean }[] {
  const bytes = Buffer.from(png);
  const chunks = [];
  for (let at = 8; at < bytes.length; ) {
    const length = bytes.readUInt32BE(at);
    const [type, data] = [bytes.subarray(at + 4, at + 8), bytes.subarray(at + 8, at + 8 + length)];
    const sum = bytes.readUInt32BE(at + 8 + length);
    chunks.push({ type: type.toString(), data, isRight: sum === crc32(Buffer.concat([type, data])) });
    at += 12 + length;
  }
  return chunks;
}

function chunk(type: string, data: Buffer): Buffer {
  const framed = Buffer.alloc(12 + data.length);
  framed.writeUInt32BE(data.length);
  framed.write(type, 4);
  data.copy(framed, 8);
  framed.writeUInt32BE(crc32(framed.subarray(4, 8 + data.length)), 8 + data.length);
  return framed;
}

describe('the scale of a PNG', () => {
  it('stands behind the header, in points to the metre, with a right sum; all else stays', () => {
    const header = Buffer.from([0, 0, 0, 1, 0, 0, 0, 1, 8, 0, 0, 0, 0]);
    const png = Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', header),
      chunk('IDAT', deflateSync(Buffer.from([0, 128]))),
      chunk('IEND', Buffer.alloc(0)),
    ]);
    const chunks = chunksOf(withScale(png, 300 / 0.0254));
    expect(chunks.map(({ type }) => type)).toEqual(['IHDR', 'pHYs', 'IDAT', 'IEND']);
    expect(chunks.every(({ isRight }) => isRight)).toBe(true);
    const scale = chunks[1]?.data;
    expect([scale?.readUInt32BE(0), scale?.readUInt32BE(4), scale?.[8]]).toEqual([11811, 11811, 1]);
  });
});
