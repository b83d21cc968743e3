import type { MultipartFile } from '@fastify/multipart';
import type { FastifyRequest } from 'fastify';
import { LIMITS } from '@haycart/core';
import { Budget } from './budget';
import { ProblemError } from './errors/problem-error';

/** A file that somebody who signed in sent. */
export interface ReceivedFile {
  name: string;
  type: string;
  bytes: Buffer;
}

const underWay = new Budget(LIMITS.apiFilesAtOnce.most);

/**
 * Receives the one file of a multipart request, in memory, within a size.
 *
 * @throws ProblemError 400 for a broken body, 413, 415, and 503 while as much is received as may be at once.
 */
export async function receiveFile(request: FastifyRequest, largest: number): Promise<ReceivedFile> {
  if (!request.isMultipart()) throw new ProblemError('wrong-type', 'Send the file as multipart/form-data.');
  const told = Number(request.headers['content-length'] ?? largest);
  const giveBack = underWay.take(Math.min(told, largest));
  if (!giveBack)
    throw new ProblemError('not-available', 'Many files arrive just now. Send it again soon.', undefined, 5);
  try {
    const part = await request.file({ limits: { fileSize: largest, files: 1 } });
    if (!part) throw new ProblemError('unreadable', 'The request brings no file.');
    const bytes = await part.toBuffer();
    // A file that reaches the size just where a piece of it ends is cut there without a failure.
    if (part.file.truncated) throw new ProblemError('too-large', 'The file is larger than what is taken here.');
    return { name: nameOf(part), type: part.mimetype.slice(0, LIMITS.fileName.most), bytes };
  } catch (cause) {
    if (cause instanceof ProblemError || (cause as { statusCode?: number }).statusCode === 413) throw cause;
    throw new ProblemError('unreadable', 'The multipart body is broken. Send one file, and the closing boundary.');
  } finally {
    giveBack();
  }
}

function nameOf({ filename }: MultipartFile): string {
  return (
    filename
      .slice(-LIMITS.fileName.most)
      .replace(/^.*[\\/]/s, '')
      .replaceAll('\0', '') || 'file'
  );
}
