import { hostname, networkInterfaces } from 'node:os';

/** This machine's own addresses in the workshop's network. */
export function lanAddresses(): string[] {
  return Object.values(networkInterfaces())
    .flatMap((addresses) => addresses ?? [])
    .filter((address) => !address.internal && address.family === 'IPv4')
    .map((address) => address.address);
}

/** Names by which other devices may call this machine. */
export function lanNames(): string[] {
  const name = hostname().toLowerCase();
  return [name, `${name}.local`];
}

/** All that this machine answers to. */
export function ownNames(lan: boolean): Set<string> {
  const names = new Set(['localhost', '127.0.0.1', '[::1]']);
  if (!lan) return names;
  for (const name of lanNames()) names.add(name);
  for (const addresses of Object.values(networkInterfaces()))
    for (const { address, family } of addresses ?? [])
      names.add(family === 'IPv6' ? `[${address.split('%')[0]}]` : address);
  return names;
}
