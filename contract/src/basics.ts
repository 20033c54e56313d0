import { z } from 'zod';

export const id = z.string().min(1).max(60);
export const units = z.int().min(0);
export const isoDate = z.iso.date();
export const instant = z.iso.datetime();
/** Grams, millimetres: whole numbers. */
export const whole = z.int();
/** Carts that were left with goods on them, and the lanes where they are. */
export const cartsThere = z.array(z.object({ cart: z.string(), lane: z.string() }));
