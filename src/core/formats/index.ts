/** Files in open formats: bytes or text in, values out (RFC 4180, RFC 6350). */
export * from './cpl-read';
export * from './cpl-write';
export * from './csv';
export * from './text';
export * from './vcard';
