import type { Said } from '../forms/form-pages.service';

export const NO_SUCH_LINK: Said = {
  status: 404,
  title: 'This link does not work',
  text: 'Check that all of it was copied from the mail.',
};
