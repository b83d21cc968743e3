import type { FormShape, IntakeShape, Page, ProblemBody, SubmissionShape } from '@haycart/api';
import type { FormDefinition, FormItem } from '@haycart/core';
import type { TestServer, TestWorkspace } from './test-server';

export const EMAIL: FormItem = {
  name: 'email',
  type: 'email',
  label: '',
  feeds: { record: 'contact', field: 'email' },
};

export const formOf = (...items: FormItem[]): FormDefinition => ({
  format: 'haycart.form/1',
  title: 'Ask us',
  language: 'en-GB',
  button: 'Send',
  after: { do: 'thank', title: 'Thank you, {email}', text: '' },
  items,
});

/** A workspace's forms, as their editor and their visitors call them. */
export class TestForms {
  #made = 0;

  constructor(
    private readonly server: TestServer,
    private readonly workspace: TestWorkspace,
  ) {}

  async add(form: FormDefinition = formOf(EMAIL)): Promise<IntakeShape> {
    const name = `Form ${(this.#made += 1)} of ${this.workspace.key}`;
    const { status, body } = await this.workspace.call<IntakeShape>('POST', '/forms', { name, form });
    if (status !== 201) throw new Error(`The form was not made: ${JSON.stringify(body)}`);
    return body;
  }

  at(key: string): Promise<FormShape> {
    return this.workspace.get(`/forms/${key}`);
  }

  publish(key: string, more = {}) {
    return this.workspace.call<{ version: number; route: string | null } & ProblemBody>(
      'POST',
      `/forms/${key}/publish`,
      more,
    );
  }

  open({ address }: Pick<IntakeShape, 'address'>, query = '', headers = {}): Promise<Response> {
    return fetch(`${this.server.base}${address}${query}`, { headers });
  }

  async page(form: Pick<IntakeShape, 'address'>, query = '', headers = {}): Promise<string> {
    return (await this.open(form, query, headers)).text();
  }

  send(key: string, answers: Record<string, string>, query = ''): Promise<Response> {
    return this.server.post(`/in/${key}${query}`, new URLSearchParams(answers).toString(), {
      accept: 'text/html',
      'content-type': 'application/x-www-form-urlencoded',
    });
  }

  async latest(key: string): Promise<SubmissionShape> {
    return (await this.workspace.get<Page<SubmissionShape>>(`/submissions?intake=${key}&limit=1`)).items[0]!;
  }
}
