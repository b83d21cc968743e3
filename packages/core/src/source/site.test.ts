import { expect, test } from '@jest/globals';
import { clickIn } from './click';
import { deviceOf } from './device';
import { domainOf, pathOf, referringSite } from './site';

test.each([
  ['https://www.weir.example/a?b#c', 'https://quillfern.example/', 'weir.example'],
  ['https://news.weir.example/', undefined, 'news.weir.example'],
  ['https://shop.quillfern.example/', 'https://www.quillfern.example/', null],
  ['android-app://com.mail/', 'https://quillfern.example/', 'com.mail'],
  [undefined, 'https://quillfern.example/', null],
])('%s refers to %s as %s', (referrer, page, site) => expect(referringSite(referrer, page)).toBe(site));

test.each([
  ['https://a.example/b?c=d#e', 'https://a.example/b'],
  ['https://a.example/#top', 'https://a.example/'],
  ['', null],
  [undefined, null],
])('the page %s is kept as %s', (page, path) => expect(pathOf(page)).toBe(path));

test.each([
  ['forum.weir.example', 'weir.example'],
  ['weir.co.uk', 'weir.co.uk'],
  [undefined, null],
])('%s belongs to %s', (site, domain) => expect(domainOf(site)).toBe(domain));

test.each<[[string, string][], string | undefined]>([
  [[['gclid', '1']], 'gclid'],
  [
    [
      ['utm_source', 'a'],
      ['Partner_Click_Id', '2'],
    ],
    'partner_click_id',
  ],
  [[['clientid', '1']], undefined],
  [[['gclid', '']], undefined],
  [[[`${'a'.repeat(40)}clid`, '1']], undefined],
])('of %j the click is %s', (parameters, name) => expect(clickIn(parameters)?.name).toBe(name));

test.each([
  ['Mozilla/5.0 (iPad; CPU OS 17_0)', 'tablet'],
  ['Mozilla/5.0 (Linux; Android 14) Mobile', 'phone'],
  ['curl/8', 'desktop'],
])('%s is a %s', (browser, device) => expect(deviceOf(browser)).toBe(device));
