import ipaddr from 'ipaddr.js';
import type { DomainNames } from '../domain-names';

/** An address of the internet protocol that may be connected to. */
export interface AllowedAddress {
  address: string;
  family: 4 | 6;
}

/** Why an address is not connected to, in a sentence. */
export class AddressRefused extends Error {
  override name = 'AddressRefused';
}

/**
 * The address of a host that the server may connect to: a public one, or one of the networks that its owner allowed. A host
 * is resolved once, and what it leads to is what is connected to, so that a name cannot lead inside a moment later.
 *
 * @throws AddressRefused where it leads nowhere, or inside alone.
 */
export async function allowedAddress(
  host: string,
  allowed: readonly string[],
  names: Pick<DomainNames, 'addresses'>,
): Promise<AllowedAddress> {
  const literal = host.replace(/^\[|\]$/g, '');
  const found = ipaddr.isValid(literal) ? [literal] : await names.addresses(host);
  if (!found.length) throw new AddressRefused(`The name ${host} leads to no machine.`);
  const address = found.find((one) => isPublic(one) || isWithin(one, allowed));
  if (address === undefined)
    throw new AddressRefused(
      `${host} is inside a private network (${found[0]}), where nothing is sent to unless HAYCART_PRIVATE_TARGETS allows it.`,
    );
  return { address, family: ipaddr.parse(address).kind() === 'ipv6' ? 6 : 4 };
}

/** Whether an address is reached over the public internet (RFC 6890), also where it is written inside another kind. */
export function isPublic(address: string): boolean {
  return ipaddr.process(address).range() === 'unicast';
}

function isWithin(address: string, networks: readonly string[]): boolean {
  const parsed = ipaddr.process(address);
  return networks.some((network) => {
    const [range, bits] = network.includes('/')
      ? ipaddr.parseCIDR(network)
      : ([ipaddr.parse(network), ipaddr.parse(network).toByteArray().length * 8] as const);
    return range.kind() === parsed.kind() && parsed.match(range as ipaddr.IPv4, bits);
  });
}
