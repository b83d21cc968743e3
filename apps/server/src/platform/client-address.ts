import type { IncomingMessage } from 'node:http';
import proxyAddr from '@fastify/proxy-addr';

export type Trust = (address: string, hop: number) => boolean;

/** Returns which hops are believed in what they say of the one before. @throws TypeError for what is no address or network */
export function compileTrust(networks: readonly string[]): Trust {
  return proxyAddr.compile([...networks]);
}

/** Returns the address of whoever sent a request: the last one that no trusted proxy has. */
export function clientAddress(request: IncomingMessage, trust: Trust): string {
  return proxyAddr(request as never, trust) ?? '';
}

/** Whether an address is this machine's own. */
export function isLoopback(address: string): boolean {
  return /^(::ffff:)?127\.|^::1$/.test(address);
}
