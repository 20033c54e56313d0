import { z } from 'zod';
import { id } from './basics.ts';
import { rightSchema, roleSchema } from './rights.ts';

export const passwordSignIn = z.strictObject({
  name: z.string().trim().min(1).max(80),
  password: z.string().min(1).max(200),
});
export const badgeSignIn = z.strictObject({
  badge: z.string().trim().min(1).max(40),
  pin: z.string().regex(/^\d{4,8}$/, 'a PIN has 4 to 8 digits'),
});
export const signInBody = z.union([passwordSignIn, badgeSignIn]);

export const me = z.object({
  person: z.object({ id, name: z.string(), roles: z.array(roleSchema), rights: z.array(rightSchema) }),
  site: z.object({ id, code: z.string(), name: z.string(), timeZone: z.string(), currency: z.string() }),
});
export type Me = z.infer<typeof me>;
