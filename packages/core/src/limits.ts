/** The most of something: how much, of what unit, and what happens beyond it. */
export interface Limit {
  most: number;
  unit:
    'characters' | 'bytes' | 'times' | 'things' | 'levels' | 'seconds' | 'milliseconds' | 'minutes' | 'hours' | 'days';
  /** What is limited, as a heading. */
  of: string;
  /** What becomes of more. */
  beyond: string;
}

const KIBIBYTE = 1_024;
const MEBIBYTE = 1_024 * KIBIBYTE;
const GIBIBYTE = 1_024 * MEBIBYTE;

/** Everything that is limited, in one place: the code reads its numbers here, and `docs/limits.md` is made of it. */
export const LIMITS = {
  // What is posted to an intake.
  body: { most: MEBIBYTE, unit: 'bytes', of: 'A post without files', beyond: '413' },
  bodyWithFiles: { most: 25 * MEBIBYTE, unit: 'bytes', of: 'A post with files', beyond: '413' },
  parts: { most: 11_000, unit: 'things', of: 'Parts of a multipart post', beyond: '413' },
  files: { most: 50, unit: 'things', of: 'Files in one post', beyond: '413' },
  fileName: { most: 255, unit: 'characters', of: 'The name of a file', beyond: 'It is cut at the beginning.' },
  submissionsAtOnce: { most: 500, unit: 'things', of: 'Submissions in one post', beyond: '422' },
  payloadDepth: { most: 200, unit: 'levels', of: 'Nesting of a payload', beyond: '422' },
  payloadFields: { most: 10_000, unit: 'things', of: 'Fields of a payload', beyond: '422' },
  payloadKey: { most: 1_000, unit: 'characters', of: 'The name of a field in a payload', beyond: '422' },
  payloadValue: { most: 250_000, unit: 'characters', of: 'One value of a payload', beyond: '422' },
  searchedWords: {
    most: 2_000,
    unit: 'things',
    of: 'Different words by which the search finds one submission',
    beyond: 'The search does not know them.',
  },
  address: { most: 8 * KIBIBYTE, unit: 'bytes', of: 'The address of a request, with its parameters', beyond: '414' },
  idempotencyKey: { most: 255, unit: 'characters', of: 'An Idempotency-Key', beyond: '422' },
  webhookHeader: { most: 1_000, unit: 'characters', of: 'A webhook header', beyond: '401' },
  visitPart: { most: 2_000, unit: 'characters', of: 'One part of a visit', beyond: 'It is cut.' },
  formPicture: { most: 2 * MEBIBYTE, unit: 'bytes', of: 'A picture for a form', beyond: '413' },
  formPictures: { most: 1_000, unit: 'things', of: 'Pictures for the forms of a workspace', beyond: '409' },
  // What the server holds at once.
  headers: { most: 16 * KIBIBYTE, unit: 'bytes', of: 'All headers of a request', beyond: '431' },
  journeysInMemory: {
    most: 256 * MEBIBYTE,
    unit: 'bytes',
    of: 'Journeys of all workspaces that a server holds in memory for reports',
    beyond: 'Those asked for longest ago are read again.',
  },
  searchText: {
    most: 200,
    unit: 'characters',
    of: 'What is typed into the search of submissions',
    beyond: 'It is cut.',
  },
  apiBody: { most: 2 * MEBIBYTE, unit: 'bytes', of: 'A body sent to the API', beyond: '413' },
  apiProperties: { most: 300, unit: 'things', of: 'Properties of a body sent to the API', beyond: '422' },
  inboxBytes: {
    most: 64 * MEBIBYTE,
    unit: 'bytes',
    of: 'Submissions that wait to be written',
    beyond: '503, to be sent again',
  },
  bodiesAtOnce: { most: 96 * MEBIBYTE, unit: 'bytes', of: 'Bodies being received', beyond: '503, to be sent again' },
  uploadsAtOnce: { most: 16, unit: 'things', of: 'Posts with files being received', beyond: '503, to be sent again' },
  uploadsPerClient: { most: 4, unit: 'things', of: 'Posts with files from one address at once', beyond: '429' },
  filesWrittenAtOnce: {
    most: 2,
    unit: 'things',
    of: 'Posts with files being written to the database',
    beyond: 'They wait.',
  },
  apiFilesAtOnce: {
    most: 256 * MEBIBYTE,
    unit: 'bytes',
    of: 'Files being received at the API',
    beyond: '503, to be sent again',
  },
  pageBytes: {
    most: MEBIBYTE,
    unit: 'bytes',
    of: 'Payloads of one page of submissions',
    beyond: 'The page is shorter.',
  },
  connections: { most: 10_000, unit: 'things', of: 'Open connections', beyond: 'They are refused.' },
  connectionsPerClient: {
    most: 500,
    unit: 'things',
    of: 'Open connections from one address, but for trusted proxies',
    beyond: 'They are closed.',
  },
  streamsPerPerson: { most: 30, unit: 'things', of: 'Open event streams of one person or token', beyond: '429' },
  // How long.
  requestHeaders: { most: 15, unit: 'seconds', of: 'Sending the headers of a request', beyond: '408' },
  plainBody: { most: 30, unit: 'seconds', of: 'Sending a body without files', beyond: '408' },
  request: { most: 300, unit: 'seconds', of: 'Sending a whole request', beyond: '408' },
  idleConnection: { most: 10, unit: 'seconds', of: 'A connection without a request', beyond: 'It is closed.' },
  lingering: { most: 5, unit: 'seconds', of: 'Reading on after an early answer', beyond: 'The connection is closed.' },
  readAfterAnswer: {
    most: 64 * MEBIBYTE,
    unit: 'bytes',
    of: 'Reading on after an early answer',
    beyond: 'The connection is closed.',
  },
  readyAnswer: { most: 1_500, unit: 'milliseconds', of: 'Asking the database for /readyz', beyond: '503' },
  databaseConnect: { most: 5, unit: 'seconds', of: 'Connecting to the database', beyond: '503' },
  databaseStatement: { most: 120, unit: 'seconds', of: 'One statement of the database', beyond: '503, or another try' },
  outgoingAnswer: {
    most: 15,
    unit: 'seconds',
    of: 'Waiting for the answer of an address that is posted to',
    beyond: 'It is tried again.',
  },
  outgoingAnswerBytes: {
    most: 64 * KIBIBYTE,
    unit: 'bytes',
    of: 'The answer of an address that is posted to',
    beyond: 'The rest is not read.',
  },
  outgoingAtOnce: {
    most: 16,
    unit: 'things',
    of: 'Messages, mails and posts being sent at once',
    beyond: 'They wait.',
  },
  outgoingPerAddress: { most: 4, unit: 'things', of: 'The same, to one address', beyond: 'They wait.' },
  perMinute: {
    most: 10_000,
    unit: 'things',
    of: 'Messages or mails a minute, where a receiver is said to take only so many',
    beyond: 'Another number is refused.',
  },
  mailFile: {
    most: 10 * MEBIBYTE,
    unit: 'bytes',
    of: 'A file that mails can have attached',
    beyond: 'It is refused, with 413.',
  },
  mailFiles: { most: 200, unit: 'things', of: 'Files that mails can have attached', beyond: 'Another is refused.' },
  mailAttached: {
    most: 15 * MEBIBYTE,
    unit: 'bytes',
    of: 'All that is attached to one mail',
    beyond: 'The mail is not sent, and says so.',
  },
  returnedMail: {
    most: MEBIBYTE,
    unit: 'bytes',
    of: 'A mail that comes back',
    beyond: 'It is refused, with 552.',
  },
  stopNotice: { most: 1, unit: 'seconds', of: 'Answering, but not ready, before a stop', beyond: '' },
  stopRequests: { most: 8, unit: 'seconds', of: 'Finishing requests before a stop', beyond: 'They are closed.' },
  stopJobs: {
    most: 5,
    unit: 'seconds',
    of: 'A job’s way to a safe point before a stop',
    beyond: 'It is done again after the next start.',
  },
  stop: { most: 20, unit: 'seconds', of: 'Stopping', beyond: 'The process ends.' },
  // Files of people.
  sheetFile: { most: 100 * MEBIBYTE, unit: 'bytes', of: 'A file of people', beyond: '413' },
  sheetLook: {
    most: 256 * KIBIBYTE,
    unit: 'bytes',
    of: 'The beginning of a file that is looked at before it is brought in',
    beyond: '413',
  },
  sheetUnpacked: { most: 300 * MEBIBYTE, unit: 'bytes', of: 'A workbook, unpacked', beyond: 'The file is refused.' },
  sheetMemory: { most: 768 * MEBIBYTE, unit: 'bytes', of: 'Memory for reading a file', beyond: 'The file is refused.' },
  sheetSilence: { most: 60, unit: 'seconds', of: 'Reading a file without a row', beyond: 'The file is refused.' },
  // What is kept.
  intakeFiles: { most: 2 * GIBIBYTE, unit: 'bytes', of: 'Files of one intake', beyond: '422; a warning from 80 % on' },
  workspaceFiles: {
    most: 10 * GIBIBYTE,
    unit: 'bytes',
    of: 'Files of one workspace',
    beyond: '422; a warning from 80 % on',
  },
  idempotency: {
    most: 24,
    unit: 'hours',
    of: 'Remembering an Idempotency-Key or webhook-id',
    beyond: 'It is a new submission.',
  },
  jobTries: { most: 3, unit: 'times', of: 'Tries of a job', beyond: 'It rests until a person asks.' },
  jsonDepth: { most: 200, unit: 'levels', of: 'Nesting of a body sent to the API', beyond: '400' },
  // Signing in.
  sessionIdle: { most: 3, unit: 'days', of: 'A session that is not used', beyond: 'It ends.' },
  session: { most: 14, unit: 'days', of: 'A session', beyond: 'It ends.' },
  inviteLink: { most: 7, unit: 'days', of: 'A link that invites a colleague', beyond: 'It ends.' },
  resetLink: { most: 24, unit: 'hours', of: 'A link to set a password', beyond: 'It ends.' },
  commandToken: { most: 24, unit: 'hours', of: 'A token made on the command line', beyond: 'It ends.' },
  setUpGuesses: { most: 10, unit: 'times', of: 'Wrong set-up codes in an hour', beyond: '429' },
  secretOverlap: { most: 24, unit: 'hours', of: 'An old signing secret beside the new one', beyond: 'It ends.' },
} as const satisfies Record<string, Limit>;
