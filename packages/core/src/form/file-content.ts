/** How files of a kind begin, by their ending; an ending that is not here is taken at its word. */
const BEGINNINGS: Record<string, number[][]> = {
  pdf: [[0x25, 0x50, 0x44, 0x46]],
  png: [[0x89, 0x50, 0x4e, 0x47]],
  jpg: [[0xff, 0xd8, 0xff]],
  jpeg: [[0xff, 0xd8, 0xff]],
  gif: [[0x47, 0x49, 0x46, 0x38]],
  zip: [[0x50, 0x4b]],
  docx: [[0x50, 0x4b]],
  xlsx: [[0x50, 0x4b]],
  pptx: [[0x50, 0x4b]],
  tif: [
    [0x49, 0x49, 0x2a, 0x00],
    [0x4d, 0x4d, 0x00, 0x2a],
  ],
};
/** How the pictures begin that every browser shows, and that hold no code. */
const PICTURES: Record<string, { marks: number[]; at?: number }[]> = {
  'image/png': [{ marks: [0x89, 0x50, 0x4e, 0x47] }],
  'image/jpeg': [{ marks: [0xff, 0xd8, 0xff] }],
  'image/gif': [{ marks: [0x47, 0x49, 0x46, 0x38] }],
  'image/webp': [{ marks: [0x52, 0x49, 0x46, 0x46] }, { marks: [0x57, 0x45, 0x42, 0x50], at: 8 }],
};
/** How programs begin, which nobody sends as a document: of Windows, of Linux, and scripts. */
const PROGRAMS = [
  [0x4d, 0x5a],
  [0x7f, 0x45, 0x4c, 0x46],
  [0x23, 0x21],
];
const PROGRAM_ENDINGS: ReadonlySet<string> = new Set(['exe', 'dll', 'com', 'scr', 'sh', 'elf', 'bin']);

/** Whether a file is a program whose name does not say so, by its first bytes. */
export function isHiddenProgram(bytes: Uint8Array, name: string): boolean {
  return !PROGRAM_ENDINGS.has(endingOf(name)) && PROGRAMS.some((marks) => beginsWith(bytes, marks));
}

/** Whether a file is what its name says, by its first bytes. */
export function fitsEnding(bytes: Uint8Array, name: string): boolean {
  const wanted = BEGINNINGS[endingOf(name)];
  return wanted ? wanted.some((marks) => beginsWith(bytes, marks)) : !isHiddenProgram(bytes, name);
}

/** The media type of a picture by its first bytes, whatever it is called; null for what is none. */
export function pictureType(bytes: Uint8Array): string | null {
  const found = Object.entries(PICTURES).find(([, places]) =>
    places.every(({ marks, at = 0 }) => beginsWith(bytes.subarray(at), marks)),
  );
  return found?.[0] ?? null;
}

function endingOf(name: string): string {
  return name.slice(name.lastIndexOf('.') + 1).toLowerCase();
}

function beginsWith(bytes: Uint8Array, marks: readonly number[]): boolean {
  return marks.every((mark, at) => bytes[at] === mark);
}
