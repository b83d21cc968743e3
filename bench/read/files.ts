import iconv from 'iconv-lite';

/** A file of people, and what its rows hold. */
export interface PeopleFile {
  name: string;
  heldOut: boolean;
  bytes: Uint8Array;
  /** The values of each row that can be read, by column. */
  rows: readonly Record<string, string>[];
}

const utf8 = (text: string) => new TextEncoder().encode(text);
const as = (encoding: string, text: string) => new Uint8Array(iconv.encode(text, encoding));

const ADA = { Name: 'Ada Weir', 'E-mail': 'ada@weir.example', Town: 'Leeds' };
const BO = { Name: 'Bo Holm', 'E-mail': 'bo@holm.example', Town: 'Århus' };
const TWO = [ADA, BO];
const COLUMNS = ['Name', 'E-mail', 'Town'] as const;
const lines = (delimiter: string, rows: readonly Record<string, string>[] = TWO, end = '\n') =>
  [COLUMNS.join(delimiter), ...rows.map((row) => COLUMNS.map((column) => row[column] ?? '').join(delimiter))].join(end);

const POLISH = [
  { Name: 'Paweł Dąbrowski', 'E-mail': 'p@d.example', Town: 'Łódź' },
  { Name: 'Żaneta Śliwa', 'E-mail': 'z@s.example', Town: 'Gdańsk' },
];
const RUSSIAN = [
  { Name: 'Мария Соколова', 'E-mail': 'm@s.example', Town: 'Казань' },
  { Name: 'Иван Петров', 'E-mail': 'i@p.example', Town: 'Тверь' },
];
const JAPANESE = [
  { Name: '山田 太郎', 'E-mail': 'y@t.example', Town: '横浜市' },
  { Name: '鈴木 花子', 'E-mail': 's@h.example', Town: '札幌市' },
];
const CHINESE = [
  { Name: '王小明', 'E-mail': 'w@x.example', Town: '北京市朝阳区' },
  { Name: '李丽华', 'E-mail': 'l@l.example', Town: '上海市浦东新区' },
];
const KOREAN = [
  { Name: '김민수', 'E-mail': 'k@m.example', Town: '서울특별시' },
  { Name: '이영희', 'E-mail': 'l@y.example', Town: '부산광역시' },
];
const GREEK = [
  { Name: 'Ελένη Παπαδοπούλου', 'E-mail': 'e@p.example', Town: 'Θεσσαλονίκη' },
  { Name: 'Γιώργος Νικολάου', 'E-mail': 'g@n.example', Town: 'Πάτρα' },
];
const TURKISH = [
  { Name: 'Işıl Güneş', 'E-mail': 'i@g.example', Town: 'İzmir' },
  { Name: 'Çağrı Şahin', 'E-mail': 'c@s.example', Town: 'Eskişehir' },
];
const HUNGARIAN = [
  { Name: 'Kőszegi Ödön', 'E-mail': 'k@o.example', Town: 'Győr' },
  { Name: 'Szűcs Ilona', 'E-mail': 's@i.example', Town: 'Hódmezővásárhely' },
];
const PRICES = [
  { Name: 'Zoë – “Weir”', 'E-mail': 'z@w.example', Town: 'Budget 5 000 €' },
  { Name: 'Bo’s', 'E-mail': 'b@h.example', Town: 'Œuvre…' },
];

const card = (...inner: string[]) => ['BEGIN:VCARD', 'VERSION:3.0', ...inner, 'END:VCARD'].join('\r\n');

const file = (
  name: string,
  heldOut: boolean,
  bytes: Uint8Array | string,
  rows: PeopleFile['rows'] = TWO,
): PeopleFile => ({
  name,
  heldOut,
  bytes: typeof bytes === 'string' ? utf8(bytes) : bytes,
  rows,
});

/** Files of people as programs and people write them, each with the rows that were meant. */
export const FILES: readonly PeopleFile[] = [
  file('commas', false, lines(',')),
  file('semicolons, CRLF', false, lines(';', TWO, '\r\n')),
  file('tabs', true, lines('\t')),
  file('pipes', true, lines('|')),
  file('old line ends', true, lines(',', TWO, '\r')),
  file('a byte order mark', false, `\ufeff${lines(',')}`),
  file('UTF-16, little end, with a mark', false, new Uint8Array([0xff, 0xfe, ...as('utf-16le', lines('\t'))])),
  file('UTF-16, little end, without a mark', true, as('utf-16le', lines(','))),
  file('UTF-16, big end, without a mark', true, as('utf-16be', lines(','))),
  file('Windows-1252 with € and dashes', false, as('windows-1252', lines(';', PRICES)), PRICES),
  file('Windows-1252, one letter', true, as('windows-1252', lines(','))),
  file('ISO 8859-15', true, as('iso-8859-15', lines(';', [{ ...BO, Town: 'Øster Å' }])), [{ ...BO, Town: 'Øster Å' }]),
  file('Windows-1250, Polish', false, as('windows-1250', lines(';', POLISH)), POLISH),
  file('ISO 8859-2, Hungarian', true, as('iso-8859-2', lines(';', HUNGARIAN)), HUNGARIAN),
  file('Windows-1251, Russian', false, as('windows-1251', lines(';', RUSSIAN)), RUSSIAN),
  file('KOI8-R, Russian', true, as('koi8-r', lines(',', RUSSIAN)), RUSSIAN),
  file('Shift_JIS, Japanese', false, as('shift_jis', lines(',', JAPANESE)), JAPANESE),
  file('EUC-JP, Japanese', true, as('euc-jp', lines(',', JAPANESE)), JAPANESE),
  file('GB 18030, Chinese', true, as('gb18030', lines(',', CHINESE)), CHINESE),
  file('EUC-KR, Korean', true, as('euc-kr', lines(',', KOREAN)), KOREAN),
  file('Windows-1253, Greek', true, as('windows-1253', lines(';', GREEK)), GREEK),
  file('Windows-1254, Turkish', true, as('windows-1254', lines(';', TURKISH)), TURKISH),
  file(
    'two encodings in one file',
    false,
    new Uint8Array([...utf8(lines(',')), ...as('windows-1252', '\nZoë,z@w.example,Århus')]),
    [...TWO, { Name: 'Zoë', 'E-mail': 'z@w.example', Town: 'Århus' }],
  ),
  file('sep=;', false, `sep=;\r\n${lines(';', TWO, '\r\n')}`),
  file('SEP=, in quotes', true, `"SEP=,"\n${lines(',')}`),
  file('sep=|', true, `sep=|\n${lines('|')}`),
  file('a comma inside quotes', false, 'Name,E-mail,Town\n"Weir, Ada",a@w.example,"Leeds, UK"', [
    { Name: 'Weir, Ada', 'E-mail': 'a@w.example', Town: 'Leeds, UK' },
  ]),
  file('a quote after a space', false, 'Name, E-mail, Town\nAda Weir, ada@weir.example, "Leeds, UK"', [
    { ...ADA, Town: 'Leeds, UK' },
  ]),
  file('quotes after tabs and spaces', true, 'Name; E-mail; Town\n "Weir; Ada" ;  ada@weir.example; "Leeds"', [
    { ...ADA, Name: 'Weir; Ada' },
  ]),
  file('an inch mark', false, 'Name,E-mail,Town\nAda Weir,ada@weir.example,5" pots\nBo Holm,bo@holm.example,Århus', [
    { ...ADA, Town: '5" pots' },
    BO,
  ]),
  file(
    'inch marks in two rows',
    true,
    'Name,E-mail,Town\nAda Weir,ada@weir.example,5" pots\nBo Holm,bo@holm.example,7" pots',
    [
      { ...ADA, Town: '5" pots' },
      { ...BO, Town: '7" pots' },
    ],
  ),
  file('a doubled quote', true, 'Name,E-mail,Town\n"Ada ""Addie"" Weir",ada@weir.example,Leeds', [
    { ...ADA, Name: 'Ada "Addie" Weir' },
  ]),
  file('a line end inside quotes', true, 'Name,E-mail,Town\n"Ada\nWeir",ada@weir.example,Leeds', [
    { ...ADA, Name: 'Ada\nWeir' },
  ]),
  file(
    'all in quotes, semicolons',
    true,
    lines('";"')
      .split('\n')
      .map((line) => `"${line}"`)
      .join('\n'),
  ),
  file('blank lines between', true, lines(',').replaceAll('\n', '\n\n')),
  file('lines of delimiters alone', true, `${lines(',')}\n,,\n,,`),
  file('no header', false, 'Ada Weir,ada@weir.example\nBo Holm,bo@holm.example', [
    { 'Column 1': 'Ada Weir', 'Column 2': 'ada@weir.example' },
    { 'Column 1': 'Bo Holm', 'Column 2': 'bo@holm.example' },
  ]),
  file('one column of addresses', true, 'ada@weir.example\nbo@holm.example', [
    { 'Column 1': 'ada@weir.example' },
    { 'Column 1': 'bo@holm.example' },
  ]),
  file('one column with a header', true, 'E-mail\nada@weir.example\nbo@holm.example', [
    { 'E-mail': 'ada@weir.example' },
    { 'E-mail': 'bo@holm.example' },
  ]),
  file('two columns of one name', false, 'Name,Phone,Phone\nAda Weir,0113 496 0018,07700 900018', [
    { Name: 'Ada Weir', Phone: '0113 496 0018', 'Phone 2': '07700 900018' },
  ]),
  file('addresses of one name', true, 'First,Last,Email,Email\nAda,Weir,ada@weir.example,office@weir.example', [
    { First: 'Ada', Last: 'Weir', Email: 'ada@weir.example', 'Email 2': 'office@weir.example' },
  ]),
  file('years as columns', false, 'Name,E-mail,2025,2026\nAda Weir,ada@weir.example,120,340', [
    { Name: 'Ada Weir', 'E-mail': 'ada@weir.example', '2025': '120', '2026': '340' },
  ]),
  file('a year among columns of another language', true, 'Vorname;Nachname;Umsatz;2026\nAda;Weir;12;14', [
    { Vorname: 'Ada', Nachname: 'Weir', Umsatz: '12', '2026': '14' },
  ]),
  file('a title above', false, `Visitors of the spring fair,,\n${lines(',')}`),
  file('a title, a date and a blank line above', true, `Open day list\nExported 12/03/2027\n\n${lines(',')}`),
  file('a title above, semicolons', true, `Liste der Besucher;;\n;;\n${lines(';')}`),
  file('a column without a name', true, 'Name,E-mail,\nAda Weir,ada@weir.example,x', [
    { Name: 'Ada Weir', 'E-mail': 'ada@weir.example', 'Column 3': 'x' },
  ]),
  file('names of columns with line ends', true, '"Full\nname",E-mail\nAda Weir,ada@weir.example', [
    { 'Full name': 'Ada Weir', 'E-mail': 'ada@weir.example' },
  ]),
  file('decimal commas beside semicolons', true, 'Name;Value\nAda Weir;1.234,50\nBo Holm;7,5', [
    { Name: 'Ada Weir', Value: '1.234,50' },
    { Name: 'Bo Holm', Value: '7,5' },
  ]),
  file('commas in a tab file', true, 'Name\tAddress\nAda Weir\t1, Weir Lane, Leeds\nBo Holm\tVej 2, Århus', [
    { Name: 'Ada Weir', Address: '1, Weir Lane, Leeds' },
    { Name: 'Bo Holm', Address: 'Vej 2, Århus' },
  ]),
  file('short rows', true, 'Name,E-mail,Town\nAda Weir,ada@weir.example\nBo Holm,bo@holm.example,Århus', [
    { Name: 'Ada Weir', 'E-mail': 'ada@weir.example' },
    BO,
  ]),
  file('JSON lines', false, TWO.map((one) => JSON.stringify(one)).join('\n')),
  file('a JSON list', false, JSON.stringify(TWO)),
  file('a JSON list over lines', true, JSON.stringify(TWO, null, 2)),
  file('a JSON object with a list', true, JSON.stringify({ exported: '2027-03-12', contacts: TWO }, null, 2)),
  file('one JSON object over lines', true, JSON.stringify(ADA, null, 2), [ADA]),
  file('a card', false, card('FN:Ada Weir', 'N:Weir;Ada;;;', 'EMAIL:ada@weir.example'), [
    { full_name: 'Ada Weir', first_name: 'Ada', last_name: 'Weir', email: 'ada@weir.example' },
  ]),
  file(
    'a card with groups',
    false,
    card('item1.EMAIL;TYPE=INTERNET:ada@weir.example', 'item1.X-LABEL:Office', 'FN:Ada Weir'),
    [{ full_name: 'Ada Weir', email: 'ada@weir.example' }],
  ),
  file('a card with escapes', false, card('FN:Weir\\, Ada', 'ORG:Weir \\; Sons', 'NOTE:one\\ntwo\\, three \\\\n'), [
    { full_name: 'Weir, Ada', company: 'Weir ; Sons', note: 'one\ntwo, three \\n' },
  ]),
  file(
    'an old card in ISO 8859-1, quoted-printable',
    false,
    'BEGIN:VCARD\r\nVERSION:2.1\r\nN;CHARSET=ISO-8859-1;ENCODING=QUOTED-PRINTABLE:Holm;B=F8;;;\r\nEMAIL;INTERNET:bo@holm.example\r\nEND:VCARD',
    [{ first_name: 'Bø', last_name: 'Holm', email: 'bo@holm.example' }],
  ),
  file(
    'an old card in Shift_JIS, quoted-printable',
    true,
    'BEGIN:VCARD\r\nVERSION:2.1\r\nFN;CHARSET=SHIFT_JIS;ENCODING=QUOTED-PRINTABLE:=8ER=93c=91=BE=98Y\r\nEMAIL:y@t.example\r\nEND:VCARD',
    [{ full_name: '山田太郎', email: 'y@t.example' }],
  ),
  file('a card in Windows-1252 without saying so', true, as('windows-1252', card('FN:Zoë Weir', 'EMAIL:z@w.example')), [
    { full_name: 'Zoë Weir', email: 'z@w.example' },
  ]),
  file(
    'two cards, folded lines',
    true,
    `${card('FN:Ada', ' Weir', 'EMAIL:ada@weir.example')}\r\n${card('FN:Bo Holm', 'EMAIL:bo@holm.example')}`,
    [
      { full_name: 'AdaWeir', email: 'ada@weir.example' },
      { full_name: 'Bo Holm', email: 'bo@holm.example' },
    ],
  ),
  file('a card with a scheme before its number', true, card('FN:Ada Weir', 'TEL;VALUE=uri:tel:+44-113-496-0018'), [
    { full_name: 'Ada Weir', phone: '+44-113-496-0018' },
  ]),
  file('a list of attendees with a total below', true, `${lines(',')}\n,,\nTotal: 2,,`, [...TWO, { Name: 'Total: 2' }]),
  file('full-width commas in cells', true, lines(',', [{ ...ADA, Town: 'Leeds，UK' }]), [
    { ...ADA, Town: 'Leeds，UK' },
  ]),
  file('spaces that do not break', true, lines(';', [{ ...ADA, Town: 'West\u00a0Yorkshire' }]), [
    { ...ADA, Town: 'West\u00a0Yorkshire' },
  ]),
];
