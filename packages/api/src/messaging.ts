import type { WorkingHours } from '@haycart/core';

/** A chat or a phone that messages go to. */
export interface ChannelShape {
  key: string;
  name: string;
  by: 'chat' | 'text';
  /** The host of its address, which is a secret; of a phone the number. */
  to: string;
  /** When somebody reads it: an IANA time zone, and hours of days of the week; Monday to Friday, 9 to 5, while it has none. */
  timeZone: string | null;
  hours: WorkingHours;
  /** How many messages it takes a minute; any number where it is null. */
  perMinute: number | null;
}

/** What sends text messages. */
export interface TextGatewayShape {
  /** The host of its address; null where nothing does. */
  host: string | null;
}

/** The server that takes mail (SMTP), and in whose name it is sent. */
export interface MailServerShape {
  host: string;
  port: number;
  /** `tls`: from the beginning; `starttls`: from the greeting on; `none`: in the clear. */
  security: 'tls' | 'starttls' | 'none';
  user: string | null;
  /** Whether one is kept; it is never shown. */
  hasPassword: boolean;
  fromName: string;
  fromAddress: string;
  replyTo: string | null;
  /** The domain that mail which cannot be delivered comes back to; to the sender where it is null. */
  returnDomain: string | null;
  /** How many mails it takes a minute; any number where it is null. */
  perMinute: number | null;
  /** In whose name teams write, by the team’s key; the others write as above. */
  senders: Record<string, MailSender>;
}

/** In whose name mail goes, and where answers go: the same address where none is said. */
export interface MailSender {
  fromName: string;
  fromAddress: string;
  replyTo: string | null;
}
