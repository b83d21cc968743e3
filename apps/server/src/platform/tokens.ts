/** The token under which the configuration is injected. */
export const CONFIG = Symbol('Config');
