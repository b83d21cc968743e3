import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { defineFinisher, NO_PARAMETERS } from './finisher';

export const hash = defineFinisher({
  name: 'hash',
  label: 'hash',
  description:
    'The SHA-256 of the text in small letters without blank ends, in hexadecimal, as advertising platforms compare e-mail addresses.',
  parameters: NO_PARAMETERS,
  example: { before: ' Ada@Weir.example ', after: '7e878e1b3cae881ade66c74ea5437af349023d84349318adeb82274b6cb6a4ef' },
  finish(text) {
    const plain = text.trim().toLowerCase();
    return { text: plain === '' ? '' : bytesToHex(sha256(utf8ToBytes(plain))) };
  },
});
