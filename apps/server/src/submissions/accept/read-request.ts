import type { IncomingMessage } from 'node:http';
import Busboy from '@fastify/busboy';
import { addAnswer, type BodyFormat, type JsonObject } from '@haycart/core';
import { newId } from '../../platform/new-id';
import { ProblemError } from '../../platform/errors/problem-error';
import type { ArrivedFile } from './submission-inbox.service';

const MEBIBYTE = 1_048_576;
/** The largest bodies taken, in bytes. */
export const BODY_LIMITS = { plain: MEBIBYTE, withFiles: 25 * MEBIBYTE } as const;

/** A body as it is kept: JSON and urlencoded as they came, multipart taken apart into JSON and files. */
export interface ReadRequest {
  format: BodyFormat;
  body: Buffer;
  files: ArrivedFile[];
}

/** Reads the body of a post, within the limits. @throws ProblemError 413 or 415, or 400 for broken multipart. */
export async function readRequest(request: IncomingMessage): Promise<ReadRequest> {
  const type = (request.headers['content-type'] ?? '').split(';', 1)[0]!.trim().toLowerCase();
  switch (type) {
    case 'application/json':
      return { format: 'json', body: await readBytes(request, BODY_LIMITS.plain), files: [] };
    case 'application/x-www-form-urlencoded':
      return { format: 'urlencoded', body: await readBytes(request, BODY_LIMITS.plain), files: [] };
    case 'multipart/form-data':
      return readMultipart(request);
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

function readBytes(request: IncomingMessage, limit: number): Promise<Buffer> {
  if (Number(request.headers['content-length'] ?? 0) > limit) return Promise.reject(tooLarge(limit));
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    let size = 0;
    request.on('data', (chunk: Buffer) => {
      size += chunk.length;
      if (size > limit) {
        request.removeAllListeners('data');
        reject(tooLarge(limit));
      } else chunks.push(chunk);
    });
    request.on('end', () => resolve(chunks.length === 1 ? chunks[0]! : Buffer.concat(chunks)));
    request.on('error', reject);
    request.on('aborted', () => reject(new ProblemError('unreadable', 'The body ended too early.')));
  });
}

function readMultipart(request: IncomingMessage): Promise<ReadRequest> {
  if (Number(request.headers['content-length'] ?? 0) > BODY_LIMITS.withFiles)
    return Promise.reject(tooLarge(BODY_LIMITS.withFiles));
  return new Promise((resolve, reject) => {
    const payload = Object.create(null) as JsonObject;
    const files: ArrivedFile[] = [];
    let size = 0;
    const broken = () =>
      reject(
        new ProblemError(
          'unreadable',
          'The multipart body is broken. Send every part with its name, and the closing boundary.',
        ),
      );
    let parser: ReturnType<typeof Busboy>;
    try {
      parser = Busboy({
        headers: { ...request.headers, 'content-type': request.headers['content-type']! },
        limits: { fieldSize: MEBIBYTE, parts: 11_000 },
      });
    } catch {
      return broken();
    }
    parser.on('field', (name: string, value: string, _nameCut: boolean, valueCut: boolean) => {
      if (valueCut) reject(tooLarge(BODY_LIMITS.plain));
      addAnswer(payload, name, value);
    });
    parser.on('file', (name, stream, fileName, _encoding, type) => {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        const bytes = Buffer.concat(chunks);
        if (!bytes.length && !fileName) return;
        const id = newId();
        files.push({
          id,
          name: (fileName ?? 'file').replaceAll('\0', ''),
          type: (type || 'application/octet-stream').replaceAll('\0', ''),
          bytes,
        });
        addAnswer(payload, name, { file: id, name: fileName ?? 'file', type, size: bytes.length });
      });
    });
    parser.on('partsLimit', () =>
      reject(new ProblemError('too-large', 'The body has more parts than are taken here.')),
    );
    parser.on('finish', () => resolve({ format: 'json', body: Buffer.from(JSON.stringify(payload)), files }));
    parser.on('error', broken);
    request.on('data', (chunk: Buffer) => {
      size += chunk.length;
      if (size > BODY_LIMITS.withFiles) {
        request.unpipe(parser);
        reject(tooLarge(BODY_LIMITS.withFiles));
      }
    });
    request.on('aborted', broken);
    request.pipe(parser);
  });
}
