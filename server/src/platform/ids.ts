import { randomBytes } from 'node:crypto';

/** Where new ids come from; tests pass one of their own. */
export type IdSource = () => string;

const digits = '0123456789abcdefghjkmnpqrstvwxyz';

/** 16 characters of 80 random bits, in an alphabet without look-alikes. */
export const randomId: IdSource = () => {
  let bits = 0n;
  for (const byte of randomBytes(10)) bits = (bits << 8n) | BigInt(byte);
  let text = '';
  for (let i = 0; i < 16; i++) {
    text += digits[Number(bits & 31n)];
    bits >>= 5n;
  }
  return text;
};
