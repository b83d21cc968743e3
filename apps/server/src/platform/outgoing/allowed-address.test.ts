import { describe, expect, test } from '@jest/globals';
import { allowedAddress, isPublic } from './allowed-address';

const names = (found: Record<string, string[]>) => ({
  addresses: (name: string) => Promise.resolve(found[name] ?? []),
});
const allow = (host: string, allowed: string[] = [], found: Record<string, string[]> = {}) =>
  allowedAddress(host, allowed, names(found));

describe('an address that is sent to', () => {
  test.each(['8.8.8.8', '203.0.114.1', '2606:4700::1111', '::ffff:8.8.8.8'])('%s is public', (address) => {
    expect(isPublic(address)).toBe(true);
  });

  test.each([
    '127.0.0.1',
    '0.0.0.0',
    '10.1.2.3',
    '172.16.0.1',
    '192.168.1.1',
    '169.254.169.254',
    '100.64.0.1',
    '192.0.2.1',
    '224.0.0.1',
    '255.255.255.255',
    '::1',
    '::',
    'fe80::1',
    'fd00::1',
    'ff02::1',
    '::ffff:127.0.0.1',
    '::ffff:169.254.169.254',
    '64:ff9b::7f00:1',
    '2002:7f00:1::',
  ])('%s is not', (address) => {
    expect(isPublic(address)).toBe(false);
  });

  test('is what its name leads to, the first that is allowed', async () => {
    const found = { 'hooks.example': ['10.0.0.1', '8.8.8.8'], 'inside.example': ['10.0.0.1'] };
    expect(await allow('hooks.example', [], found)).toEqual({ address: '8.8.8.8', family: 4 });
    await expect(allow('inside.example', [], found)).rejects.toThrow('inside a private network (10.0.0.1)');
    expect(await allow('inside.example', ['10.0.0.0/8'], found)).toEqual({ address: '10.0.0.1', family: 4 });
    await expect(allow('inside.example', ['10.1.0.0/16', 'fd00::/8'], found)).rejects.toThrow(
      'HAYCART_PRIVATE_TARGETS',
    );
    await expect(allow('nowhere.example', [], found)).rejects.toThrow('leads to no machine');
  });

  test('may be written as a number, in brackets too', async () => {
    expect(await allow('[::1]', ['::1'])).toEqual({ address: '::1', family: 6 });
    expect(await allow('::ffff:127.0.0.1', ['127.0.0.0/8'])).toEqual({ address: '::ffff:127.0.0.1', family: 6 });
    await expect(allow('127.0.0.1')).rejects.toThrow('inside a private network');
    // Addresses of the web are written in one way, so that no other reaches here.
    expect(new URL('http://2130706433/').hostname).toBe('127.0.0.1');
    expect(new URL('http://0x7f.1/').hostname).toBe('127.0.0.1');
  });
});
