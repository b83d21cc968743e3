import { z } from 'zod';

/** Schemas are read as they stand, not compiled: compiling needs `eval`, which the application's pages forbid. */
z.config({ jitless: true });

export { z };
