import { readFileSync } from 'node:fs';
import { join } from 'node:path';

export const keyFile = (folder: string): string => join(folder, 'access-token');

/** The key of an application that has made its data folder. */
export const keyOf = (folder: string): string => readFileSync(keyFile(folder), 'utf8').trim();

/** What a program sends with its requests. */
export const withKey = (folder: string): { authorization: string } => ({
  authorization: `Bearer ${keyOf(folder)}`,
});

/** What a browser has that was given the address with the key. */
export const keyCookie = (folder: string, port: number) => ({
  name: `pebble-key-${port}`,
  value: keyOf(folder),
  domain: '127.0.0.1',
  path: '/',
  expires: -1,
  httpOnly: true,
  secure: false,
  sameSite: 'Strict' as const,
});
