import { remembered } from '../remembered';

/**
 * Whose mail services read a point before the @ as nothing, as they document; elsewhere it tells mailboxes apart.
 */
const POINTS_IGNORED = new Set(['gmail.com', 'googlemail.com']);
/** Domains that are two names of one service. */
const SAME_SERVICE: Readonly<Record<string, string>> = { 'googlemail.com': 'gmail.com' };

/** What a workspace holds to be one mailbox. */
export interface MailboxReading {
  /** Whether `ada+news@…` is `ada@…` (sub-addressing, RFC 5233). */
  tags: boolean;
  /** Whether `a.da@…` is `ada@…` where the mail service says so. */
  points: boolean;
}

export const USUAL_MAILBOX_READING: MailboxReading = { tags: true, points: true };

/**
 * The mailbox behind an e-mail address in its normal form: without the sub-address (RFC 5233) and without points where
 * the mail service ignores them.
 *
 * @example mailboxOf('ada.weir+shows@gmail.com') // 'adaweir@gmail.com'
 */
export function mailboxOf(email: string, reading: MailboxReading = USUAL_MAILBOX_READING): string {
  const at = email.lastIndexOf('@');
  if (at < 1) return email;
  let local = email.slice(0, at);
  const domain = email.slice(at + 1);
  const service = SAME_SERVICE[domain] ?? domain;
  const tag = local.indexOf('+');
  if (reading.tags && tag > 0) local = local.slice(0, tag);
  if (reading.points && POINTS_IGNORED.has(domain)) local = local.replaceAll('.', '') || local;
  return `${local}@${reading.points ? service : domain}`;
}

/** Names of mailboxes that several people read: the roles of RFC 2142, and what offices in several languages call them. */
const ROLES = new Set(
  [
    'info information office hello hi contact contacts enquiries enquiry inquiries mail email post team general reception admin',
    'administration sales marketing support help helpdesk service services customerservice care billing accounts accounting finance invoices',
    'invoice orders order purchasing procurement hr jobs careers recruitment press media news newsletter webmaster hostmaster postmaster',
    'abuse noc security noreply no-reply donotreply secretary secretariat school bursar head library reservations bookings booking shop store',
    'kontakt buero buro empfang verwaltung vertrieb verkauf einkauf rechnung buchhaltung sekretariat zentrale poststelle anfrage',
    'algemeen receptie verkoop inkoop administratie secretariaat klantenservice bestelling',
    'accueil secretariat ventes achats comptabilite direction commercial',
    'contacto ventas compras oficina administracion recepcion contatti segreteria amministrazione vendite acquisti ufficio biuro sekretariat sprzedaz',
    'everyone all staff',
  ]
    .join(' ')
    .split(' '),
);

/** A mailbox of a household: `whitlockfamily@…`, `familie.vos@…`. */
const FAMILY = /famil(?:y|ie|ia|le)|famille|household|gezin|rodzina/;

/** Whether an address is by its name one that several people read: `info@…`, `sales.north@…`, `whitlockfamily@…`. */
export const isRoleMailbox = remembered((email): boolean => {
  const local = email.slice(0, Math.max(0, email.lastIndexOf('@'))).split('+')[0]!;
  if (ROLES.has(local) || FAMILY.test(local)) return true;
  const words = local.split(/[._-]+/).filter(Boolean);
  return words.length > 1 && words.every((word) => ROLES.has(word) || /^\d{1,3}$/.test(word));
});
