/** Length, type and sum of a PNG chunk, in bytes, and where the first one ends behind the signature. */
const FRAME = 12;
const AFTER_HEADER = 8 + FRAME + 13;

/** The sum of a PNG chunk. Source: PNG (ISO/IEC 15948), annex D: CRC-32 of its type and data. */
function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}

/** A PNG that says how many of its points make a metre, so that it is printed at its true size: a pHYs chunk behind the header. */
export function withScale(png: Uint8Array, pointsPerMetre: number): Uint8Array<ArrayBuffer> {
  const chunk = new Uint8Array(FRAME + 9);
  const view = new DataView(chunk.buffer);
  view.setUint32(0, 9);
  chunk.set(new TextEncoder().encode('pHYs'), 4);
  view.setUint32(8, Math.round(pointsPerMetre));
  view.setUint32(12, Math.round(pointsPerMetre));
  // The unit: metres.
  chunk[16] = 1;
  view.setUint32(17, crc32(chunk.subarray(4, 17)));
  const scaled = new Uint8Array(png.length + chunk.length);
  scaled.set(png.subarray(0, AFTER_HEADER));
  scaled.set(chunk, AFTER_HEADER);
  scaled.set(png.subarray(AFTER_HEADER), AFTER_HEADER + chunk.length);
  return scaled;
}
