import { SetMetadata } from '@nestjs/common';

export const PUBLIC = 'haycart:public';

/** Marks what needs no session and no token. */
export const Public = () => SetMetadata(PUBLIC, true);
