import { z } from 'zod';
import { id, instant } from './basics.ts';
import { rightSchema } from './rights.ts';
import { siteSettings } from './siteSettings.ts';

const pin = z.string().regex(/^\d{4,8}$/, 'a PIN has 4 to 8 digits');

export const passwordSignIn = z.strictObject({
  name: z.string().trim().min(1).max(80),
  password: z.string().min(1).max(200),
});
export const badgeSignIn = z.strictObject({
  badge: z.string().trim().min(1).max(40),
  pin,
});
/** Whose session ended, or ends soon, signs in again where they are: the device knows who they were. */
export const sameSignIn = z.union([
  z.strictObject({ person: id, pin }),
  z.strictObject({ person: id, password: z.string().min(1).max(200) }),
]);
export const signInBody = z.union([passwordSignIn, badgeSignIn, sameSignIn]);

/** Languages that the interface is written in. */
export const languages = ['en', 'de'] as const;
export type Language = (typeof languages)[number];
export const languageChoice = z.strictObject({ language: z.enum(languages) });

export const accountChange = z.object({
  id: z.int(),
  at: instant,
  by: z.string(),
  what: z.array(z.string()).describe('Columns of the sheet of people; "role" for a role that they have'),
  role: z.string().nullable(),
});
export type AccountChange = z.infer<typeof accountChange>;
export const sawChangesBody = z.strictObject({ upTo: z.int().min(0) });

export const me = z.object({
  person: z.object({
    id,
    name: z.string(),
    roles: z.array(z.string()),
    rights: z.array(rightSchema),
    language: z.enum(languages).nullable().describe('Null where they never chose one'),
  }),
  site: z.object({ id, code: z.string(), name: z.string(), timeZone: z.string(), currency: z.string() }),
  /** Sites where the person may work; more than one can be chosen from. */
  sites: z.array(
    z.object({
      id,
      code: z.string(),
      name: z.string(),
      releases: z.boolean().describe('Whether they may release there'),
    }),
  ),
  /** What the device needs to know of how the site works. */
  settings: siteSettings,
  until: instant.describe('When this session ends'),
  restored: z
    .object({ at: instant, of: instant.nullable() })
    .nullable()
    .describe('When a backup was restored last, and the last change that it holds'),
  version: z
    .object({ product: z.string(), app: z.string().nullable() })
    .describe('Version of the server, and which build of the app it serves'),
  standins: z.boolean().describe('Whether stand-ins for a host system and for carriers answer'),
  accountChanges: z.array(accountChange).describe('What others changed about this account and was not seen yet'),
});
export type Me = z.infer<typeof me>;

export const siteChoice = z.strictObject({ site: id });

/** Where somebody is signed in. */
export const devices = z.object({
  devices: z.array(
    z.object({
      id,
      device: z.string(),
      browser: z.string(),
      person: z.string(),
      since: instant,
      until: instant,
      own: z.boolean().describe('Whether it is the session that asks'),
      offlineSince: instant.nullable().describe('When it was last heard, where that is minutes ago'),
    }),
  ),
  addresses: z.array(z.string()).describe('Where other devices reach this server'),
  secure: z.boolean(),
});
export type Devices = z.infer<typeof devices>;

/** What a scanner is tried with: letters and signs that differ from keyboard to keyboard. */
export const TRIAL_CODE = 'HR-75/zY_4';

export const addressQuery = z.object({ text: z.string().min(8).max(300) });
