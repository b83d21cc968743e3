import type { SubmissionDetail } from '@haycart/api';

/** Where a file that came with a submission is taken from. */
export const sentFile = (submission: string, id: string) => `/api/v1/submissions/${submission}/files/${id}`;

/** The files that came with a submission; each is saved when pressed. */
export function SentFiles({ submission: { id: submission, files } }: { submission: SubmissionDetail }) {
  if (!files.length) return null;
  return (
    <section aria-label="Files that came with it" className="mt-4 border-t border-line pt-3">
      <h3 className="mb-1 text-[14px]">Files that came with it</h3>
      <ul>
        {files.map(({ id, name, size }) => (
          <li key={id} className="flex gap-3 border-b border-hair py-1 last:border-b-0">
            <a href={sentFile(submission, id)} download className="min-w-0 flex-1 truncate text-slate hover:underline">
              {name}
            </a>
            <span className="flex-none text-small text-muted">{sized(size)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

export function sized(bytes: number): string {
  if (bytes < 1_024) return `${bytes} B`;
  return bytes < 1_048_576 ? `${Math.round(bytes / 1_024)} kB` : `${(bytes / 1_048_576).toFixed(1)} MB`;
}
