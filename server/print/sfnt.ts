import { inflateSync } from 'node:zlib';

const HEADER = { woff: 44, sfnt: 12 } as const;
const ENTRY = { woff: 20, sfnt: 16 } as const;

/** Tables begin at a multiple of four bytes. */
const aligned = (length: number): number => Math.ceil(length / 4) * 4;

/**
 * A font as programs read it, from one that was packed for the web: unpacked once, where the library would unpack a table again for
 * every glyph. Source: W3C, WOFF File Format 1.0.
 *
 * @throws RangeError for anything but a WOFF of the first version
 */
export function sfntOfWoff(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new RangeError('this is no WOFF font');
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = HEADER.woff + i * ENTRY.woff;
    const [offset, packed, length] = [4, 8, 12].map((byte) => woff.readUInt32BE(at + byte)) as [
      number,
      number,
      number,
    ];
    const stored = woff.subarray(offset, offset + packed);
    return {
      tag: woff.subarray(at, at + 4),
      checksum: woff.subarray(at + 16, at + 20),
      data: packed < length ? inflateSync(stored) : stored,
    };
  });
  const size = tables.reduce((sum, { data }) => sum + aligned(data.length), 0);
  const sfnt = Buffer.alloc(HEADER.sfnt + count * ENTRY.sfnt + size);
  woff.copy(sfnt, 0, 4, 8);
  const power = Math.floor(Math.log2(count));
  sfnt.writeUInt16BE(count, 4);
  sfnt.writeUInt16BE(16 * 2 ** power, 6);
  sfnt.writeUInt16BE(power, 8);
  sfnt.writeUInt16BE(16 * count - 16 * 2 ** power, 10);
  let offset = HEADER.sfnt + count * ENTRY.sfnt;
  for (const [i, { tag, checksum, data }] of tables.entries()) {
    const at = HEADER.sfnt + i * ENTRY.sfnt;
    tag.copy(sfnt, at);
    checksum.copy(sfnt, at + 4);
    sfnt.writeUInt32BE(offset, at + 8);
    sfnt.writeUInt32BE(data.length, at + 12);
    data.copy(sfnt, offset);
    offset += aligned(data.length);
  }
  return sfnt;
}
