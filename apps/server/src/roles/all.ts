import { MODULES as ACCEPT } from './accept';
import { MODULES as ROUTE } from './route';
import { MODULES as WEB } from './web';

/** Everything in one process. */
export const MODULES = [...ACCEPT, ...ROUTE, ...WEB];
