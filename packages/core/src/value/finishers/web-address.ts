import { warning } from '../../problem';
import { shorten } from '../../text';
import { defineFinisher, eachLine, NO_PARAMETERS } from './finisher';

export const webAddress = defineFinisher({
  name: 'web-address',
  label: 'web address',
  description: 'Writes a web address in full, with https:// and its host in small letters. What is none becomes blank.',
  parameters: NO_PARAMETERS,
  example: { before: 'WWW.Fennwick.example/Visit', after: 'https://www.fennwick.example/Visit' },
  finish: (text) =>
    eachLine(text, (line) => {
      const given = line.trim().slice(0, 2_000);
      if (given === '') return { text: '' };
      const url = URL.parse(/^https?:\/\//i.test(given) ? given : `https://${given}`);
      const isAddress = url && /^https?:$/.test(url.protocol) && url.hostname.includes('.') && !/\s/.test(given);
      if (isAddress && !url.username) return { text: url.pathname === '/' && !url.search ? url.origin : url.href };
      return { text: '', problem: warning('not-a-web-address', `“${shorten(given, 60)}” is no web address.`) };
    }),
});
