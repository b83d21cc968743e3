import type { IncomingMessage } from 'node:http';
import Busboy from '@fastify/busboy';
import { addAnswer, LIMITS, type BodyFormat, type JsonObject } from '@haycart/core';
import { Budget } from '../platform/budget';
import { ProblemError } from '../platform/errors/problem-error';
import { discard, setAside, type ArrivedFile } from '../submissions/inbox/arrived-file';

const MEBIBYTE = 1_048_576;

/** A body as it is kept: JSON and urlencoded as they came, multipart taken apart into JSON and files. */
export interface ReadRequest {
  format: BodyFormat;
  body: Buffer;
  files: ArrivedFile[];
}

/** What may be received at once, over all senders. */
const bodies = new Budget(LIMITS.bodiesAtOnce.most);
const uploads = new Budget(LIMITS.uploadsAtOnce.most);
const uploadsBy = new Map<string, Budget>();

/**
 * Reads the body of a post, within the limits of size, time, and what is received at once.
 *
 * @throws ProblemError 413, 415, 408 or 503, or 400 for a body that is broken or ends early.
 */
export async function readRequest(request: IncomingMessage, address: string): Promise<ReadRequest> {
  const type = (request.headers['content-type'] ?? '').split(';', 1)[0]!.trim().toLowerCase();
  switch (type) {
    case 'application/json':
      return { format: 'json', body: await readBytes(request), files: [] };
    case 'application/x-www-form-urlencoded':
      return { format: 'urlencoded', body: await readBytes(request), files: [] };
    case 'multipart/form-data':
      return readMultipart(request, address);
    default:
      throw new ProblemError(
        'wrong-type',
        `${type ? `The content type ${type.slice(0, 100)} is not taken` : 'No content type is given'}. Send application/json, application/x-www-form-urlencoded or multipart/form-data.`,
      );
  }
}

function tooLarge(limit: number): ProblemError {
  return new ProblemError('too-large', `The body is larger than ${limit / MEBIBYTE} MiB, the most that is taken here.`);
}

function tooMuchAtOnce(): ProblemError {
  return new ProblemError(
    'not-available',
    'More arrives than can be taken just now. Send it again soon.',
    undefined,
    2,
  );
}

function endedEarly(): ProblemError {
  return new ProblemError('unreadable', 'The body ended too early.');
}

function readBytes(request: IncomingMessage): Promise<Buffer> {
  const limit = LIMITS.body.most;
  const told = Number(request.headers['content-length'] ?? 0);
  if (told > limit) return Promise.reject(tooLarge(limit));
  const giveBack: (() => void)[] = [];
  const chunks: Buffer[] = [];
  let size = 0;
  return new Promise<Buffer>((resolve, reject) => {
    const timer = setTimeout(
      () => reject(new ProblemError('too-slow', `The body took more than ${LIMITS.plainBody.most} seconds to arrive.`)),
      LIMITS.plainBody.most * 1_000,
    );
    giveBack.push(() => clearTimeout(timer));
    request.on('data', (chunk: Buffer) => {
      size += chunk.length;
      if (size > limit) return reject(tooLarge(limit));
      const taken = bodies.take(chunk.length);
      if (!taken) return reject(tooMuchAtOnce());
      giveBack.push(taken);
      chunks.push(chunk);
    });
    request.on('end', () => resolve(chunks.length === 1 ? chunks[0]! : Buffer.concat(chunks)));
    request.on('error', () => reject(endedEarly()));
    request.on('aborted', () => reject(endedEarly()));
  }).finally(() => {
    request.removeAllListeners('data');
    for (const back of giveBack) back();
  });
}

/** Takes a place among the posts with files, of all and of one sender. */
function takePlace(address: string): () => void {
  const own = uploadsBy.get(address) ?? new Budget(LIMITS.uploadsPerClient.most);
  const ownPlace = own.take(1);
  if (!ownPlace)
    throw new ProblemError('too-many', 'Too many posts with files come from this address at once.', undefined, 2);
  const place = uploads.take(1);
  if (!place) {
    ownPlace();
    throw tooMuchAtOnce();
  }
  uploadsBy.set(address, own);
  return () => {
    place();
    ownPlace();
    if (own.taken === 0) uploadsBy.delete(address);
  };
}

async function readMultipart(request: IncomingMessage, address: string): Promise<ReadRequest> {
  const limit = LIMITS.bodyWithFiles.most;
  if (Number(request.headers['content-length'] ?? 0) > limit) throw tooLarge(limit);
  const leave = takePlace(address);
  const pending: Promise<ArrivedFile | null>[] = [];
  try {
    const payload = await takeApart(request, limit, pending);
    const files = (await Promise.all(pending)).filter((file) => file !== null);
    for (const { part, id, name, type, size } of files) addAnswer(payload, part, { file: id, name, type, size });
    return { format: 'json', body: Buffer.from(JSON.stringify(payload)), files };
  } catch (cause) {
    const arrived = await Promise.allSettled(pending);
    await discard(arrived.flatMap((one) => (one.status === 'fulfilled' && one.value ? [one.value] : [])));
    throw cause;
  } finally {
    leave();
  }
}

function takeApart(
  request: IncomingMessage,
  limit: number,
  pending: Promise<ArrivedFile | null>[],
): Promise<JsonObject> {
  return new Promise((resolve, reject) => {
    const payload = Object.create(null) as JsonObject;
    let size = 0;
    let plain = 0;
    // The parser ends none of its files when it fails, and each is waited for.
    const failure = new AbortController();
    const broken = new ProblemError(
      'unreadable',
      'The multipart body is broken. Send every part with its name, and the closing boundary.',
    );
    // Without a boundary the parser would wait for ever.
    if (!/;\s*boundary=(?:"[^"]+"|[^\s;"])/i.test(request.headers['content-type']!)) return reject(broken);
    let parser: ReturnType<typeof Busboy>;
    try {
      parser = Busboy({
        headers: { ...request.headers, 'content-type': request.headers['content-type']! },
        limits: {
          fieldNameSize: LIMITS.payloadKey.most * 4,
          fieldSize: LIMITS.body.most,
          parts: LIMITS.parts.most,
          files: LIMITS.files.most,
        },
      });
    } catch {
      return reject(broken);
    }
    const fail = (cause: ProblemError) => {
      failure.abort();
      request.unpipe(parser);
      parser.destroy();
      reject(cause);
    };
    parser.on('field', (name: string | undefined, value: string, nameCut: boolean, valueCut: boolean) => {
      plain += value.length;
      if (name === undefined || nameCut) return fail(broken);
      if (valueCut || plain > LIMITS.body.most) return fail(tooLarge(LIMITS.body.most));
      addAnswer(payload, name, value);
    });
    parser.on('file', (part: string | undefined, stream, fileName: string | undefined, _encoding, type) => {
      // What it has at hand already the parser tells of to its end, also after a failure.
      if (failure.signal.aborted) return void stream.resume();
      if (part === undefined || part.length > LIMITS.payloadKey.most) {
        stream.resume();
        return fail(broken);
      }
      const file = {
        part,
        name: (fileName ?? 'file').replaceAll('\0', '').slice(-LIMITS.fileName.most),
        type: (type || 'application/octet-stream').replaceAll('\0', '').slice(0, LIMITS.fileName.most),
      };
      const arriving = setAside(stream, file, failure.signal).then(async (arrived) => {
        if (arrived.size > 0 || fileName) return arrived;
        await discard([arrived]);
        return null;
      });
      arriving.catch(() => fail(broken));
      pending.push(arriving);
    });
    const tooMany = () => fail(new ProblemError('too-large', 'The body has more parts or files than are taken here.'));
    parser.on('partsLimit', tooMany);
    parser.on('filesLimit', tooMany);
    parser.on('finish', () => resolve(payload));
    parser.on('error', () => fail(broken));
    request.on('data', (chunk: Buffer) => {
      size += chunk.length;
      if (size > limit) fail(tooLarge(limit));
    });
    request.on('aborted', () => fail(broken));
    const timer = setTimeout(
      () => fail(new ProblemError('too-slow', `The body took more than ${LIMITS.request.most} seconds to arrive.`)),
      LIMITS.request.most * 1_000,
    );
    request.on('close', () => clearTimeout(timer));
    request.pipe(parser);
  });
}
