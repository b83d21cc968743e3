import { crc32, deflateRawSync } from 'node:zlib';

/** A zip of these parts (APPNOTE 6.3.10); `size` says another unpacked size than the true one. */
export function zipOf(parts: Record<string, Buffer | string>, size?: number): Uint8Array {
  const before: Buffer[] = [];
  const directory: Buffer[] = [];
  let at = 0;
  for (const [path, content] of Object.entries(parts)) {
    const bytes = Buffer.from(content as string);
    const packed = deflateRawSync(bytes);
    const name = Buffer.from(path);
    const shared = Buffer.alloc(26);
    shared.writeUInt16LE(20, 0);
    shared.writeUInt16LE(8, 4);
    shared.writeUInt32LE(crc32(bytes), 10);
    shared.writeUInt32LE(packed.length, 14);
    shared.writeUInt32LE(size ?? bytes.length, 18);
    shared.writeUInt16LE(name.length, 22);
    const place = Buffer.alloc(14);
    place.writeUInt32LE(at, 10);
    const local = Buffer.concat([signature(0x04034b50), shared, name, packed]);
    directory.push(signature(0x02014b50), Buffer.from([20, 0]), shared, place, name);
    before.push(local);
    at += local.length;
  }
  const entries = Buffer.concat(directory);
  const end = Buffer.alloc(18);
  end.writeUInt16LE(Object.keys(parts).length, 4);
  end.writeUInt16LE(Object.keys(parts).length, 6);
  end.writeUInt32LE(entries.length, 8);
  end.writeUInt32LE(at, 12);
  return new Uint8Array(Buffer.concat([...before, entries, signature(0x06054b50), end]));
}

/** A workbook of one sheet with this XML in it. */
export function workbookOf(
  sheet: Buffer | string,
  more: Record<string, Buffer | string> = {},
  size?: number,
): Uint8Array {
  return zipOf(
    {
      'xl/workbook.xml':
        '<workbook xmlns:r="r"><sheets><sheet name="People" sheetId="1" r:id="rId1"/></sheets></workbook>',
      'xl/_rels/workbook.xml.rels':
        '<Relationships><Relationship Id="rId1" Target="worksheets/sheet1.xml"/></Relationships>',
      'xl/worksheets/sheet1.xml': sheet,
      ...more,
    },
    size,
  );
}

function signature(mark: number): Buffer {
  const bytes = Buffer.alloc(4);
  bytes.writeUInt32LE(mark);
  return bytes;
}
