import type { MailServerShape } from '@haycart/api';
import type { LibraryFile, MailTemplate } from '@haycart/core';
import { queryOptions } from '@tanstack/react-query';
import { get } from '../client';

export const mailTemplatesQuery = queryOptions({
  queryKey: ['channels', 'mail-templates'],
  queryFn: get<MailTemplate[]>('/mail-templates'),
});
export const mailFilesQuery = queryOptions({
  queryKey: ['channels', 'mail-files'],
  queryFn: get<LibraryFile[]>('/mail-files'),
});
export const mailServerQuery = queryOptions({
  queryKey: ['channels', 'mail-server'],
  queryFn: get<{ server: MailServerShape | null }>('/mail-server'),
});
