/** The encodings that a file of text may be read in, as people choose among them (WHATWG Encoding). */
export const ENCODING_NAMES = {
  'utf-8': 'Unicode (UTF-8)',
  'utf-16le': 'Unicode (UTF-16)',
  'utf-16be': 'Unicode (UTF-16, big end first)',
  'windows-1252': 'Western European (Windows-1252)',
  'windows-1250': 'Central European (Windows-1250)',
  'windows-1251': 'Cyrillic (Windows-1251)',
  'windows-1253': 'Greek (Windows-1253)',
  'windows-1254': 'Turkish (Windows-1254)',
  'windows-1255': 'Hebrew (Windows-1255)',
  'windows-1256': 'Arabic (Windows-1256)',
  'iso-8859-2': 'Central European (ISO 8859-2)',
  'iso-8859-15': 'Western European (ISO 8859-15)',
  'koi8-r': 'Cyrillic (KOI8-R)',
  shift_jis: 'Japanese (Shift_JIS)',
  'euc-jp': 'Japanese (EUC-JP)',
  gb18030: 'Chinese, simplified (GB 18030)',
  big5: 'Chinese, traditional (Big5)',
  'euc-kr': 'Korean (EUC-KR)',
} as const;
export type Encoding = keyof typeof ENCODING_NAMES;
export const ENCODINGS = Object.keys(ENCODING_NAMES) as Encoding[];
