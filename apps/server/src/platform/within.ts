/** Settles as the work does; rejects after some milliseconds when it has not settled by then. */
export async function within<Result>(ms: number, work: Promise<Result>): Promise<Result> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error(`Not done within ${ms} ms.`)), ms);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}
