import { z } from 'zod';

export const id = z.string().min(1).max(60);
export const units = z.int().min(0);
export const isoDate = z.iso.date();
export const instant = z.iso.datetime();
/** Grams, millimetres: whole numbers. */
export const whole = z.int();
/** Carts that were left with goods on them, and the lanes where they are. */
/** Lots and serial numbers of a line's goods; empty where the item has neither. */
export const lotsOfLine = z.array(z.object({ lot: z.string(), serial: z.string() }));

export const cartsThere = z.array(z.object({ cart: z.string(), lane: z.string() }));
