import type { Endpoint } from './endpoint.ts';

/** An endpoint as a browser asks it: where it is, and (as types alone) what goes there and back. */
export interface Address<E extends Endpoint = Endpoint> {
  readonly method: Endpoint['method'];
  readonly path: string;
  readonly of?: E;
}

type Addresses<Group extends Record<string, Endpoint>> = { readonly [Name in keyof Group]: Address<Group[Name]> };

/** The endpoints of a feature as a browser asks them. */
export function addresses<Group extends Record<string, Endpoint>>(
  of: Readonly<Record<keyof Group, readonly [Endpoint['method'], string]>>,
): Addresses<Group> {
  const all = Object.entries<readonly [Endpoint['method'], string]>(of);
  return Object.fromEntries(
    all.map(([name, [method, path]]) => [name, { method, path }]),
  ) as unknown as Addresses<Group>;
}
