import type { ProblemBody } from '@haycart/api';

/** What the server answered when it would not do something. */
export class ApiError extends Error {
  override name = 'ApiError';

  constructor(readonly problem: ProblemBody) {
    super(problem.detail);
  }
}

/** The one way to the server. @throws ApiError with a sentence for the person, also when nothing answers. */
export function call<Answer>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer> {
  return send(path, {
    method,
    headers: body === undefined ? headers : { ...headers, 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
}

/** Returns how a query reads an address; it is broken off when nobody waits for it any more. */
export function get<Answer>(path: string): (context: { signal: AbortSignal }) => Promise<Answer> {
  return ({ signal }) => send<Answer>(path, { method: 'GET', signal });
}

/** Sends a file. */
export function attach<Answer>(
  path: string,
  file: File,
  headers: Record<string, string> = {},
  method: 'POST' | 'PUT' = 'POST',
): Promise<Answer> {
  const form = new FormData();
  form.append('file', file);
  return send(path, { method, headers, body: form });
}

/** The failure where nothing answered at all. */
export function noAnswer(): ApiError {
  return new ApiError({
    type: '',
    title: 'No answer',
    status: 0,
    code: 'not-available',
    detail: 'Hay Cart does not answer. Check that it runs and that you are connected; this page tries again by itself.',
  });
}

async function send<Answer>(path: string, request: RequestInit): Promise<Answer> {
  let response: Response;
  try {
    response = await fetch(`/api/v1${path}`, request);
  } catch (cause) {
    if (request.signal?.aborted) throw cause;
    throw noAnswer();
  }
  const text = await response.text();
  if (!response.ok) throw new ApiError(problemFrom(response.status, text));
  return (text === '' ? undefined : JSON.parse(text)) as Answer;
}

function problemFrom(status: number, text: string): ProblemBody {
  try {
    return JSON.parse(text) as ProblemBody;
  } catch {
    return {
      type: '',
      title: 'No answer',
      status,
      code: 'internal',
      detail: 'The server gave an answer that makes no sense. Try again.',
    };
  }
}

/** A query string from what is set; nothing is sent for what is not. */
export function query(values: Record<string, string | number | null | undefined>): string {
  const set = Object.entries(values).filter(([, value]) => value !== null && value !== undefined && value !== '');
  return set.length ? `?${new URLSearchParams(set.map(([name, value]) => [name, String(value)])).toString()}` : '';
}
