import { expect, test } from '@jest/globals';
import { browserName } from './browser-name';

test.each([
  ['Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:140.0) Gecko/20100101 Firefox/140.0', 'Firefox on Windows'],
  ['Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/140.0 Mobile Safari/537.36', 'Chrome on Android'],
  ['Mozilla/5.0 (Macintosh; Intel Mac OS X 14_0) AppleWebKit/605.1.15 Version/18.0 Safari/605.1.15', 'Safari on macOS'],
  ['Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0 Safari/537.36 Edg/140.0', 'Edge on Windows'],
  ['curl/8.0', 'Another browser'],
])('%s is %s', (userAgent, name) => expect(browserName(userAgent)).toBe(name));
