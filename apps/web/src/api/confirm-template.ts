import { CONFIRM_LINK, CONFIRM_STARTER, type MailTemplate } from '@haycart/core';
import { call } from './client';

/** The key of a template that holds the link by which a visitor confirms, if there is one. */
export function confirmTemplateOf(templates: readonly MailTemplate[]): string | undefined {
  return templates.find(({ text }) => text.includes(CONFIRM_LINK))?.key;
}

/** Makes a template with that link, under a name that is free. */
export function newConfirmTemplate(templates: readonly MailTemplate[]): Promise<MailTemplate> {
  const taken = templates.map(({ name }) => name);
  let name = CONFIRM_STARTER.name;
  for (let number = 2; taken.includes(name); number += 1) name = `${CONFIRM_STARTER.name} ${number}`;
  return call<MailTemplate>('POST', '/mail-templates', { ...CONFIRM_STARTER, name });
}
