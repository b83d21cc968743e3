/** Domains whose mailboxes, and those of all beneath them, are thrown away after minutes. */
declare module 'disposable-email-domains/wildcard.js' {
  const domains: readonly string[];
  export default domains;
}
