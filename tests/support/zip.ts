import { crc32, deflateRawSync } from 'node:zlib';

/**
 * A ZIP file of some entries (APPNOTE 4.3), made by hand so that it can lie: `told` is the size that its directory tells
 * of each entry instead of the real one.
 */
export function zipOf(entries: Readonly<Record<string, Uint8Array>>, told: number | null = null): Uint8Array {
  const parts: Buffer[] = [];
  const directory: Buffer[] = [];
  let at = 0;
  for (const [name, content] of Object.entries(entries)) {
    const [title, packed] = [Buffer.from(name), deflateRawSync(content, { level: 1 })];
    // What stands in the local header and in the directory alike: version, flags, method, time, date, sum, sizes, lengths.
    const facts = Buffer.alloc(26);
    facts.writeUInt16LE(20, 0);
    facts.writeUInt16LE(8, 4);
    facts.writeUInt32LE(sumOf(content), 10);
    facts.writeUInt32LE(packed.length, 14);
    facts.writeUInt32LE(told ?? content.length, 18);
    facts.writeUInt16LE(title.length, 22);
    parts.push(Buffer.from('PK\u0003\u0004'), facts, title, packed);
    const tail = Buffer.alloc(14);
    tail.writeUInt32LE(at, 10);
    directory.push(Buffer.from('PK\u0001\u0002\u0014\u0000'), facts, tail, title);
    at += 4 + facts.length + title.length + packed.length;
  }
  const index = Buffer.concat(directory);
  const end = Buffer.alloc(18);
  const count = Object.keys(entries).length;
  end.writeUInt16LE(count, 4);
  end.writeUInt16LE(count, 6);
  end.writeUInt32LE(index.length, 8);
  end.writeUInt32LE(at, 12);
  return new Uint8Array(Buffer.concat([...parts, index, Buffer.from('PK\u0005\u0006'), end]));
}

/** The sum of a content (ITU-T V.42), bit by bit where this version of Node has no function for it. */
function sumOf(content: Uint8Array): number {
  if (typeof crc32 === 'function') return crc32(content);
  let sum = 0xffffffff;
  for (const octet of content) {
    sum ^= octet;
    for (let bit = 0; bit < 8; bit++) sum = (sum >>> 1) ^ (sum & 1 ? 0xedb88320 : 0);
  }
  return (sum ^ 0xffffffff) >>> 0;
}
