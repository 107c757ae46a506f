import { type LookupAddress, lookup } from 'node:dns';
import { BlockList, isIP, type LookupFunction } from 'node:net';

/** Networks that are nobody's outside, or lead to such (RFC 6890; RFC 6052 and 3056 hold an address of the other kind), by their first address and the bits that count. */
const PRIVATE: readonly (readonly [string, number, 'ipv4' | 'ipv6'])[] = [
  ...(
    [
      ...(['0.0.0.0/8', '10.0.0.0/8', '100.64.0.0/10', '127.0.0.0/8', '169.254.0.0/16', '172.16.0.0/12'] as const),
      ...(['192.0.0.0/24', '192.168.0.0/16', '198.18.0.0/15', '224.0.0.0/4', '240.0.0.0/4'] as const),
    ] as const
  ).map((net) => [net.split('/')[0] ?? '', Number(net.split('/')[1]), 'ipv4'] as const),
  ...(['::/128', '::1/128', '64:ff9b::/96', '2002::/16', 'fc00::/7', 'fe80::/10', 'ff00::/8'] as const).map(
    (net) => [net.split('/')[0] ?? '', Number(net.split('/')[1]), 'ipv6'] as const,
  ),
];
const blocked = new BlockList();
for (const [first, bits, family] of PRIVATE) blocked.addSubnet(first, bits, family);

/** Whether an address is one that anybody may be sent to: not of this machine, and not of the network it stands in. */
export const isPublic = (address: string): boolean =>
  isIP(address) === 4 ? !blocked.check(address, 'ipv4') : isIP(address) === 6 && !isPrivate6(address);

const isPrivate6 = (address: string): boolean => {
  // An IPv4 address in the clothes of the other kind (RFC 4291, section 2.5.5.2).
  const [, mapped] = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address) ?? [];
  return mapped === undefined ? /^::ffff:/i.test(address) || blocked.check(address, 'ipv6') : !isPublic(mapped);
};

/** Looks a name up, and refuses one that leads inside: told at the moment of connecting, so that no second answer slips by. */
export const publicOnly: LookupFunction = (hostname, options, callback) => {
  lookup(hostname, { ...options, all: true }, (error, found) => {
    const addresses = found as LookupAddress[] | undefined;
    const [first] = addresses ?? [];
    if (error) return callback(error, '', 0);
    if (first === undefined || addresses?.some(({ address }) => !isPublic(address)))
      return callback(Object.assign(new Error(`${hostname} leads to no address outside`), { code: 'EACCES' }), '', 0);
    // With `all` the whole list is expected.
    if (options.all) return callback(null, addresses ?? []);
    callback(null, first.address, first.family);
  });
};
