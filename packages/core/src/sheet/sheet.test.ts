import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { decodeText } from './decode-text';
import { readDelimited } from './read-delimited';
import { readJsonLines } from './read-json-lines';
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
  ])('%j is read', (given, text, encoding) => expect(decodeText(given)).toEqual({ text, encoding }));
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
    expect(table('Phone,Phone,\n1,2,3').columns).toEqual(['Column 1', 'Column 2', 'Column 3']);
    expect(table('Name,Town,\nAda,Zwolle,x').columns).toEqual(['Name', 'Town', 'Column 3']);
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
  expect([...readJsonLines('{"a":1}\n\n[1]\r\n{"b":')]).toEqual([
    { row: 1, values: { a: 1 } },
    { row: 3, text: '[1]', refused: 'It is no object with names and values.' },
    { row: 4, text: '{"b":', refused: 'It is no JSON.' },
  ]);
});

describe('vCards', () => {
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
      'It stands outside of a card.',
      { full_name: 'Bo' },
    ]);
  });
});
