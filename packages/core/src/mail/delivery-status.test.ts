import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readDeliveryStatus } from './delivery-status';

const lines = (...all: string[]) => all.join('\r\n');
const RECEIVER = 'Final-Recipient: rfc822; ada@weir.example';

describe('a report', () => {
  test.each([
    [
      'of a mailbox that is not there',
      lines(
        'Reporting-MTA: dns; mail.quillfern.example',
        'Arrival-Date: Mon, 30 Nov 2026 10:00:00 +0000',
        '',
        RECEIVER,
        'Original-Recipient: rfc822;ada@weir.example',
        'Action: failed',
        'Status: 5.1.1',
        'Remote-MTA: dns; mx.weir.example',
        'Diagnostic-Code: smtp; 550 5.1.1 <ada@weir.example>: Recipient address rejected:',
        '    User unknown in virtual mailbox table',
      ),
      {
        action: 'failed',
        status: '5.1.1',
        said: '550 5.1.1 <ada@weir.example>: Recipient address rejected: User unknown in virtual mailbox table',
      },
    ],
    [
      'with other capitals and line ends, a comment, and a code of its own',
      'reporting-mta: dns;EX01.weir.local\n\nfinal-recipient: RFC822;ada@weir.example\nACTION: Failed (expired)\nSTATUS: 4.4.7 (delivery time expired)\ndiagnostic-code: x-local;\n\t550 4.4.7 QUEUE.Expired; message expired\n',
      { action: 'failed', status: '4.4.7', said: '550 4.4.7 QUEUE.Expired; message expired' },
    ],
    ['that only says that it failed', lines(RECEIVER, 'Action: failed'), { action: 'failed', status: '', said: '' }],
    [
      'in another language',
      lines(
        'Reporting-MTA: dns; пошта.example',
        '',
        RECEIVER,
        'Action:failed',
        'Status:5.2.2',
        'Diagnostic-Code: smtp;552 5.2.2 Поштова скринька переповнена',
      ),
      { action: 'failed', status: '5.2.2', said: '552 5.2.2 Поштова скринька переповнена' },
    ],
    [
      'of a delay',
      lines(RECEIVER, 'Action: delayed', 'Status: 4.4.1', 'Will-Retry-Until: Fri, 4 Dec 2026 10:00:00 +0000'),
      { action: 'delayed', status: '4.4.1', said: '' },
    ],
    [
      'with a status of nonsense',
      lines(RECEIVER, 'Action: failed', 'Status: bad'),
      { action: 'failed', status: '', said: '' },
    ],
  ])('%s', (_, text, expected) => expect(readDeliveryStatus(text)).toEqual([expected]));

  test('tells of each receiver in turn, and nothing of what it does not know', () => {
    const text = lines(
      RECEIVER,
      'Action: relayed',
      'Status: 2.0.0',
      '',
      '',
      RECEIVER,
      'Action: eaten',
      '',
      RECEIVER,
      'Action: failed',
    );
    expect(readDeliveryStatus(text).map(({ action }) => action)).toEqual(['relayed', 'failed']);
    for (const nothing of ['', 'Action', ': failed', ' Action: failed', 'Subject: Action: failed'])
      expect(readDeliveryStatus(nothing)).toEqual([]);
  });

  test('takes whatever comes, and says it on one short line', () => {
    const piece = fc.oneof(
      fc.string(),
      fc.constantFrom('Action: failed', 'Diagnostic-Code: smtp;', '\r\n', '\n', ' ', ':', 'x'.repeat(900)),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 40 }), (pieces) => {
        for (const { said } of readDeliveryStatus(pieces.join('\n'))) {
          expect(said.length).toBeLessThanOrEqual(300);
          expect(said).not.toMatch(/[\r\n]/);
        }
      }),
    );
    expect(readDeliveryStatus(`${'a:b\n'.repeat(5_000)}\nAction: failed`)).toEqual([]);
  });
});
