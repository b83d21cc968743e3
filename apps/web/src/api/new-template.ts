import { CONFIRM_LINK, type MailTemplate } from '@haycart/core';
import { call } from './client';

/** What a new template says at first. */
export type TemplateStarter = Pick<MailTemplate, 'name' | 'subject' | 'text'>;

/** The key of a template that holds the link by which a visitor confirms, if there is one. */
export function confirmTemplateOf(templates: readonly MailTemplate[]): string | undefined {
  return templates.find(({ text }) => text.includes(CONFIRM_LINK))?.key;
}

/** Makes a template under a name that is free. */
export function newTemplate(starter: TemplateStarter, templates: readonly MailTemplate[]): Promise<MailTemplate> {
  const taken = templates.map(({ name }) => name);
  let name = starter.name;
  for (let number = 2; taken.includes(name); number += 1) name = `${starter.name} ${number}`;
  return call<MailTemplate>('POST', '/mail-templates', { ...starter, name });
}
