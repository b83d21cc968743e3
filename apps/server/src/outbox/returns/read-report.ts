import { readDeliveryStatus } from '@haycart/core';
import { simpleParser } from 'mailparser';

const STATUS_PART = 'message/delivery-status';

/**
 * Why a mail could not be delivered, in the words of the receiver’s server; `null` where what came back does not say that: a delay, an absence note,
 * a report that it arrived. Reads reports as RFC 3464 defines them.
 */
export async function readReport(bytes: Buffer): Promise<string | null> {
  const mail = await simpleParser(bytes, {
    keepDeliveryStatus: true,
    skipHtmlToText: true,
    skipTextToHtml: true,
    skipImageLinks: true,
    skipTextLinks: true,
  });
  const failed = mail.attachments
    .filter(({ contentType }) => contentType === STATUS_PART)
    .flatMap(({ content }) => readDeliveryStatus(content.toString('utf8')))
    .find(({ action }) => action === 'failed');
  if (!failed) return null;
  return failed.said || failed.status || 'No reason is given.';
}
