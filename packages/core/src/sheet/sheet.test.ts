import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import iconv from 'iconv-lite';
import { decodeText } from './decode-text';
import type { Encoding } from './encodings';
import { readDelimited } from './read-delimited';
import { readJson } from './read-json';
import { readTextFile } from './read-text-file';
import { readVCards } from './read-vcards';

const table = (text: string) => {
  const read = readDelimited(text);
  if (!read.ok) throw new Error(read.problem);
  return { ...read.reading, rows: [...read.rows()] };
};
const bytes = (...parts: (string | number[])[]) =>
  new Uint8Array(parts.flatMap((part) => (typeof part === 'string' ? [...new TextEncoder().encode(part)] : part)));

describe('text', () => {
  test.each([
    [bytes('Zoë'), 'Zoë', 'utf-8'],
    [bytes([0xef, 0xbb, 0xbf], 'Zoë'), 'Zoë', 'utf-8'],
    [bytes([0xff, 0xfe, 0x5a, 0x00]), 'Z', 'utf-16le'],
    [bytes([0xfe, 0xff, 0x00, 0x5a]), 'Z', 'utf-16be'],
    [bytes('Zo', [0xeb]), 'Zoë', 'windows-1252'],
    [bytes('Zoë\n', 'Zo', [0xeb]), 'Zoë\nZoë', 'utf-8, some lines windows-1252'],
  ])('%j is read', (given, text, encoding) => expect(decodeText(given)).toMatchObject({ text, encoding }));

  const encoded = (encoding: Encoding, text: string) => new Uint8Array(iconv.encode(text, encoding));

  test.each<[Encoding, string]>([
    ['windows-1252', 'Zoë – “Weir”, 5 000 €'],
    ['windows-1250', 'Paweł Dąbrowski;Łódź'],
    ['windows-1251', 'Мария Соколова;Казань'],
    ['windows-1253', 'Ελένη Παπαδοπούλου'],
    ['shift_jis', '山田 太郎,横浜市'],
    ['gb18030', '王小明,北京市朝阳区'],
    ['euc-kr', '김민수,서울특별시\n이영희,부산광역시'],
    ['utf-16be', 'Ada,Zoë'],
  ])('in %s is known by what it says', (encoding, text) =>
    expect(decodeText(encoded(encoding, `Name\n${text}`))).toMatchObject({ encoding, text: `Name\n${text}` }),
  );

  test('that may be two things is said to be unsure, and is read as a person says', () => {
    const turkish = encoded('windows-1254', 'Işıl Güneş');
    expect(decodeText(turkish).sure).toBe(false);
    expect(decodeText(turkish, 'windows-1254')).toEqual({ text: 'Işıl Güneş', encoding: 'windows-1254', sure: true });
    expect(decodeText(bytes('Zoë')).sure).toBe(true);
  });

  test('of any bytes is read', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 400 }), (any) => typeof decodeText(any).text === 'string'));
  });
});

describe('delimited values', () => {
  test.each([
    ['Name,E-mail\nAda,a@x.example', ','],
    ['Name;E-mail\r\nAda;a@x.example\r\n', ';'],
    ['Name\tE-mail\rAda\ta@x.example', '\t'],
    ['"Name"|"E-mail"\n"Ada"|a@x.example', '|'],
  ])('%j is read whatever its delimiter and line ends', (text, delimiter) => {
    expect(table(text)).toEqual({
      columns: ['Name', 'E-mail'],
      delimiter,
      header: true,
      rows: [{ row: 2, values: { Name: 'Ada', 'E-mail': 'a@x.example' } }],
    });
  });

  test('a file without a header has its columns named by their place', () => {
    expect(table('Ada,ada@weir.example\nBo,bo@weir.example')).toMatchObject({
      header: false,
      columns: ['Column 1', 'Column 2'],
      rows: [{ row: 1 }, { row: 2 }],
    });
  });

  test('columns of one name, and without one, are told apart', () => {
    expect(table('Phone,Phone,\n1,2,3').columns).toEqual(['Phone', 'Phone 2', 'Column 3']);
    expect(table('Name,Town,\nAda,Zwolle,x').columns).toEqual(['Name', 'Town', 'Column 3']);
  });

  test.each([
    ['sep=;\nName;E-mail\nAda;a@x.example', ';', 3],
    ['"sep=|"\nName|E-mail\nAda|a@x.example', '|', 3],
    ['Name, E-mail\n "Ada" , "a@x.example"', ',', 2],
    ['Visitors 2027,\n,\nName,E-mail\nAda,a@x.example', ',', 4],
  ])('%j tells its delimiter, its names and its rows', (text, delimiter, row) => {
    const { columns, rows, ...read } = table(text);
    expect([columns, read.delimiter]).toEqual([['Name', 'E-mail'], delimiter]);
    expect(rows.filter((one) => 'values' in one)).toEqual([{ row, values: { Name: 'Ada', 'E-mail': 'a@x.example' } }]);
  });

  test('what stands above the names of the columns is told of', () => {
    expect(table('Visitors 2027,\nName,E-mail\nAda,a@x.example').rows[0]).toEqual({
      row: 1,
      text: 'Visitors 2027',
      refused: 'It is above the column names.',
    });
  });

  test.each([
    ['Name,E-mail,2025,2026\nAda,a@x.example,1,2', ['Name', 'E-mail', '2025', '2026']],
    ['2025,2026\n1,2', ['Column 1', 'Column 2']],
    ['First,Email,Email\nAda,a@x.example,b@x.example', ['First', 'Email', 'Email 2']],
    ['Ada,0113 496 0018\nBo,0113 496 0019', ['Column 1', 'Column 2']],
  ])('the names of the columns of %j', (text, columns) => expect(table(text).columns).toEqual(columns));

  test('an inch mark is no quote', () => {
    expect(table('Name,Pot\nAda,5" round\nBo,"7"" square"').rows).toEqual([
      { row: 2, values: { Name: 'Ada', Pot: '5" round' } },
      { row: 3, values: { Name: 'Bo', Pot: '7" square' } },
    ]);
  });

  test('quotes may hold delimiters, quotes and lines', () => {
    expect(table('Name,Note\n"Weir, ""Ada""","one\ntwo"\nBo,').rows).toEqual([
      { row: 2, values: { Name: 'Weir, "Ada"', Note: 'one\ntwo' } },
      { row: 4, values: { Name: 'Bo' } },
    ]);
  });

  test('a broken quote costs its own row, and none after it', () => {
    const rows = Array.from({ length: 300 }, (_, index) => (index === 150 ? '"Broken,x' : `Person ${index},y`));
    const read = table(['Name,Note', ...rows].join('\n')).rows;
    expect(read).toHaveLength(300);
    expect(read.filter((row) => 'refused' in row)).toEqual([
      { row: 152, text: '"Broken,x', refused: 'A quote begins in this row and is never closed.' },
    ]);
  });

  test('a row with more cells than columns is refused rather than cut', () => {
    expect(table('Name,Town\nAda,Zwolle,extra').rows).toMatchObject([
      { row: 2, refused: 'It has 1 more filled cell than there are columns.' },
    ]);
  });

  test('3,000 columns are read, 6,000 are refused, and nothing is nothing', () => {
    const wide = (count: number) => Array.from({ length: count }, (_, index) => `field ${index}x`).join(',');
    expect(table(`${wide(3_000)}\nx`).columns).toHaveLength(3_000);
    expect(readDelimited(`${wide(6_000)}\nx`)).toMatchObject({ ok: false });
    expect(readDelimited(' \n ')).toEqual({ ok: false, problem: 'There is nothing in the file.' });
  });

  test('a quote that breaks in row 150,000 costs that row', () => {
    const rows = Array.from({ length: 160_000 }, (_, index) => (index === 149_998 ? '"Broken,x' : `P${index},y`));
    const read = table(['Name,Note', ...rows].join('\n')).rows;
    expect(read).toHaveLength(160_000);
    expect(read.filter((row) => 'refused' in row)).toMatchObject([{ row: 150_000, text: '"Broken,x' }]);
  });

  test('what a table holds is what is read, whatever the delimiter, the quotes and the line ends', () => {
    const cellText = fc.stringMatching(/^(x[a-z0-9 ,;|"'\n\t@.]{0,12}y)?$/);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(cellText, cellText, cellText), { minLength: 1, maxLength: 8 }),
        fc.constantFrom(',', ';', '\t', '|'),
        fc.constantFrom('\n', '\r\n'),
        (cells, delimiter, end) => {
          const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;
          const lines = [['Name', 'E-mail', 'Note'], ...cells].map((line) => line.map(quoted).join(delimiter));
          const kept = cells.filter((line) => line.some((text) => text !== ''));
          const { rows } = table(lines.join(end));
          expect(
            rows.map((row) =>
              'values' in row ? ['Name', 'E-mail', 'Note'].map((column) => row.values[column] ?? '') : row,
            ),
          ).toEqual(kept);
        },
      ),
    );
  });

  test('whatever a file holds, every row is read or refused', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[a-c",;\n]{0,12}$/), { maxLength: 12 }), (lines) => {
        const read = readDelimited(['Name,Town', ...lines].join('\n'));
        if (read.ok) for (const row of read.rows()) expect('values' in row || row.refused.length > 0).toBe(true);
      }),
    );
  });
});

test('JSON Lines are objects, one a line', () => {
  expect([...readJson('{"a":1}\n\n[1]\r\n{"b":')]).toEqual([
    { row: 1, values: { a: 1 } },
    { row: 3, text: '[1]', refused: 'It is no object with names and values.' },
    { row: 4, text: '{"b":', refused: 'It is no JSON.' },
  ]);
});

test('JSON may be a list, an object that holds one, or one object over lines', () => {
  const rows = [
    { row: 1, values: { a: 1 } },
    { row: 2, values: { a: 2 } },
  ];
  expect([...readJson('[{"a":1},\n {"a":2}]')]).toEqual(rows);
  expect([...readJson('{\n"of": "2027", "people": [{"a":1}, {"a":2}]}')]).toEqual(rows);
  expect([...readJson('{\n"a": 1\n}')]).toEqual([rows[0]]);
  expect([...readJson('[{"a":1}, 7]')][1]).toMatchObject({ row: 2, text: '7' });
});

test('a file is read by what it is', () => {
  const values = (text: string) => {
    const read = readTextFile(bytes(text));
    return read.ok ? [...read.rows()].map((row) => ('values' in row ? row.values : row.refused)) : read.problem;
  };
  expect(values('\ufeff[{"a":1}]')).toEqual([{ a: 1 }]);
  expect(values('BEGIN:VCARD\nFN:Ada\nEND:VCARD')).toEqual([{ full_name: 'Ada' }]);
  expect(values('[sic],b@x.example')).toEqual([{ 'Column 1': '[sic]', 'Column 2': 'b@x.example' }]);
  expect(values('a\0b')).toContain('no text and no workbook');
});

describe('vCards', () => {
  test('have escapes undone from left to right, and quoted bytes in their own encoding', () => {
    const card = (line: string) =>
      [...readVCards(`BEGIN:VCARD\n${line}\nEND:VCARD`)].map((row) => 'values' in row && row.values);
    expect(card('NOTE:one\\ntwo\\, C:\\\\new')).toEqual([{ note: 'one\ntwo, C:\\new' }]);
    expect(card('ORG:Weir \\; Sons;Glass')).toEqual([{ company: 'Weir ; Sons' }]);
    expect(card('FN;CHARSET=ISO-8859-1;ENCODING=QUOTED-PRINTABLE:B=F8 Holm')).toEqual([{ full_name: 'Bø Holm' }]);
    expect(card('FN;CHARSET=NO-SUCH;ENCODING=QUOTED-PRINTABLE:Zo=C3=AB')).toEqual([{ full_name: 'Zoë' }]);
  });

  test('are people, with folded lines, several addresses, and without their photos', () => {
    const card = `BEGIN:VCARD\nVERSION:4.0\nFN:Ada van\n  der Meer\nN:van der Meer;Ada;Maria;Dr.;\nEMAIL;TYPE=work:ada@weir.example\nitem1.EMAIL:ada@example.net\nTEL;VALUE=uri:tel:+447700900318\nORG:Weir\\, Sons;Glass\nADR:;;12 Alder St;Fennwick;;FW1 2AB;UK\nPHOTO:data:image/png;base64,${'A'.repeat(20_000)}\nEND:VCARD`;
    expect([...readVCards(card)]).toEqual([
      {
        row: 1,
        values: {
          full_name: 'Ada van der Meer',
          first_name: 'Ada Maria',
          last_name: 'van der Meer',
          email: 'ada@weir.example',
          'email 2': 'ada@example.net',
          phone: '+447700900318',
          company: 'Weir, Sons',
          address: '12 Alder St',
          town: 'Fennwick',
          postal_code: 'FW1 2AB',
          country: 'UK',
        },
      },
    ]);
  });

  test('of an old kind are read too', () => {
    const card =
      'BEGIN:VCARD\r\nVERSION:2.1\r\nFN;ENCODING=QUOTED-PRINTABLE;CHARSET=UTF-8:Zo=C3=\r\n=AB Vos\r\nEND:VCARD';
    expect([...readVCards(card)]).toEqual([{ row: 1, values: { full_name: 'Zoë Vos' } }]);
  });

  test('that end too early, or say nothing, are refused by themselves', () => {
    const cards = 'BEGIN:VCARD\nFN:Ada\nBEGIN:VCARD\nVERSION:4.0\nEND:VCARD\nstray\nBEGIN:VCARD\nFN:Bo\nEND:VCARD';
    expect([...readVCards(cards)].map((row) => ('refused' in row ? row.refused : row.values))).toEqual([
      'The card is never ended.',
      'The card says nothing of a person.',
      'It is outside of a card.',
      { full_name: 'Bo' },
    ]);
  });
});
