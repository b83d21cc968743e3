/** The token under which the configuration is injected. */
export const CONFIG = Symbol('Config');

/** The style that all hosted forms have, as CSS. */
export const FORM_STYLE = Symbol('form style');
