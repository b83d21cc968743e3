import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { PictureShape, ProblemBody } from '@haycart/api';
import { LIMITS } from '@haycart/core';
import { EMAIL, formOf, TestForms } from './support/test-forms';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
});
afterAll(() => server.stop());

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const upload = (bytes: BlobPart, name = 'mark.png') =>
  workspace.attach<PictureShape & ProblemBody>('/form-pictures', name, bytes);

describe('a picture for forms', () => {
  test('is shown to everybody at an address that does not change, as what it is', async () => {
    const { status, body } = await upload(PNG);
    expect(status).toBe(201);
    const shown = await fetch(`${server.base}${body.address}`);
    expect(Buffer.from(await shown.arrayBuffer())).toEqual(PNG);
    expect(Object.fromEntries(shown.headers)).toMatchObject({
      'content-type': 'image/png',
      'x-content-type-options': 'nosniff',
      'cross-origin-resource-policy': 'cross-origin',
      'cache-control': expect.stringContaining('immutable'),
      'content-security-policy': expect.stringContaining('sandbox'),
    });
    expect((await upload(PNG, 'another name.gif')).body.address).toBe(body.address);
  });

  test('stands in a published form', async () => {
    const { body } = await upload(PNG);
    const picture = { name: 'mark', type: 'image' as const, parts: [{ address: body.address, text: 'Our mark' }] };
    const forms = new TestForms(server, workspace);
    const form = await forms.add(formOf(picture, EMAIL));
    await forms.publish(form.key);
    expect(await forms.page(form)).toContain(`<img src="${body.address}" loading="lazy" alt="Our mark">`);
  });

  test.each([
    ['a page that is called a picture', '<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'],
    ['nothing', ''],
    ['a sound in the same wrapping', Buffer.from('RIFF\0\0\0\0WAVEfmt ')],
  ])('is not %s', async (_, bytes) => {
    expect(await upload(bytes)).toMatchObject({ status: 415, body: { code: 'wrong-type' } });
  });

  test('has a size, and a form takes no other address of this server', async () => {
    expect((await upload(Buffer.concat([PNG, Buffer.alloc(LIMITS.formPicture.most)]))).status).toBe(413);
    const picture = { name: 'mark', type: 'image' as const, parts: [{ address: '/api/v1/contacts', text: '' }] };
    const form = await workspace.call('POST', '/forms', { name: 'Sly', form: formOf(picture, EMAIL) });
    expect(form.status).toBe(422);
    for (const id of ['01900000-0000-7000-8000-000000000000', 'mark', '..%2f..%2fetc'])
      expect((await fetch(`${server.base}/f/pictures/${id}`)).status).toBeGreaterThanOrEqual(400);
  });
});
