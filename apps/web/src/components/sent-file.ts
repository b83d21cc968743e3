/** Where a file that came with a submission is taken from. */
export const sentFile = (submission: string, id: string) => `/api/v1/submissions/${submission}/files/${id}`;

/** `812 B`, `214 kB`, `1.4 MB`. */
export function sized(bytes: number): string {
  if (bytes < 1_024) return `${bytes} B`;
  return bytes < 1_048_576 ? `${Math.round(bytes / 1_024)} kB` : `${(bytes / 1_048_576).toFixed(1)} MB`;
}
