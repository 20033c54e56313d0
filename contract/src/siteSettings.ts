import { z } from 'zod';
import { demandKinds } from '@hand-relay/core/handling/shipping';
import { binRules } from '@hand-relay/core/walking/bins';
import {
  checkOrders,
  checks,
  countings,
  drops,
  labelTimes,
  lookAlikeModes,
  reserveTimes,
  setUps,
  slipTimes,
  stagings,
  touchRules,
  usualSettings,
  weighings,
} from '@hand-relay/core/deciding/settings';

export const pickSettings = z.strictObject({
  checks: z
    .array(z.enum(checks))
    .transform((list) => checks.filter((check) => list.includes(check)))
    .describe('What is checked at a pick'),
  order: z.enum(checkOrders),
  counting: z.enum(countings),
  drop: z.enum(drops).default('place').describe('Where goods go: the place on the cart, or the carton that ships'),
});

const touchRule = z.enum(touchRules);
export const touching = z.strictObject({ bin: touchRule, item: touchRule, lot: touchRule, position: touchRule });

/** How a site works; what is left out is as usual. */
export const siteSettings = z.strictObject({
  stages: z.enum(stagings).default(usualSettings.stages),
  reserve: z.enum(reserveTimes).default(usualSettings.reserve),
  countReleased: z.boolean().default(usualSettings.countReleased),
  lotSwaps: z.boolean().default(usualSettings.lotSwaps),
  otherBins: z
    .boolean()
    .default(usualSettings.otherBins)
    .describe('Whether a picker may take a pick from another bin of the item and lot, by scanning it'),
  picking: z.strictObject({ one: pickSettings, many: pickSettings }).default(usualSettings.picking),
  touch: touching.default(usualSettings.touch).describe('Whether a check may be confirmed by touch in place of a scan'),
  bins: z
    .array(z.enum(binRules))
    .max(binRules.length)
    .refine((list) => new Set(list).size === list.length, { message: 'each rule once' })
    .default([...usualSettings.bins])
    .describe('Rules by which bins are chosen, the first that tells two apart deciding'),
  carry: z
    .strictObject({ heavyFirst: z.boolean(), chilledLast: z.boolean(), highTogether: z.boolean() })
    .default(usualSettings.carry),
  walking: z
    .strictObject({
      by: z.enum(['shortest', 'sequence']),
      between: z.enum(['home', 'chain']),
      direction: z.enum(['alternate', 'one']),
      acrossDepartures: z
        .boolean()
        .default(false)
        .describe('Where runs chain: also those of different departures that are as urgent otherwise'),
    })
    .default(usualSettings.walking),
  setUp: z
    .enum(setUps)
    .default(usualSettings.setUp)
    .describe('Whether places on the cart are confirmed before the first stop'),
  ownTrips: z
    .boolean()
    .default(usualSettings.ownTrips)
    .describe('Whether a picker may gather a trip of their own from what waits'),
  askCart: z
    .boolean()
    .default(usualSettings.askCart)
    .describe(
      'Whether a run is taken with the scan of a cart; otherwise the smallest free one that takes it counts as its',
    ),
  lookAlikes: z.enum(lookAlikeModes).default(usualSettings.lookAlikes),
  nearlyEmpty: z
    .int()
    .min(-1)
    .max(99)
    .default(usualSettings.nearlyEmpty)
    .describe('Units left in a bin at which the picker is asked whether that is so; never at -1'),
  countLimit: z
    .int()
    .min(0)
    .max(9999)
    .default(usualSettings.countLimit)
    .describe('Units by which a count may differ and put the books right at once'),
  expressLane: z
    .string()
    .trim()
    .max(20)
    .default(usualSettings.expressLane)
    .describe('Lane of urgent runs; empty for none'),
  otherWork: z
    .array(z.string().trim().min(1).max(40))
    .max(20)
    .refine((list) => new Set(list).size === list.length, { message: 'each once' })
    .default([...usualSettings.otherWork])
    .describe('Work beside picking that is recorded on the device'),
  sounds: z
    .strictObject({ accepted: z.boolean(), refused: z.boolean(), finished: z.boolean() })
    .default(usualSettings.sounds),
  atStart: z
    .strictObject({ lists: z.boolean(), slips: z.boolean(), printer: z.string().trim().max(20) })
    .default(usualSettings.atStart)
    .describe(
      'What is printed when a wave starts: pick lists, slips of its orders; on this printer, or any for sheets',
    ),
  labels: z
    .enum(labelTimes)
    .default(usualSettings.labels)
    .describe('When the label of a carton is printed: by hand, when it is closed, all with the last of the order'),
  slips: z
    .enum(slipTimes)
    .default(usualSettings.slips)
    .describe('With which carton of a shipment its packing slip is printed'),
  confirmLane: z
    .boolean()
    .default(usualSettings.confirmLane)
    .describe('Whether a closed carton is confirmed in its lane by scanning the lane'),
  packagingFor: z
    .array(z.enum(demandKinds))
    .transform((list) => demandKinds.filter((kind) => list.includes(kind)))
    .default([...usualSettings.packagingFor])
    .describe('Kinds of demand whose packaging is accounted for, where its type is'),
  weighing: z
    .enum(weighings)
    .default(usualSettings.weighing)
    .describe('Whether a carton is weighed before it is closed: never, checked where it was, always'),
  label: z.enum(['4x6', 'a6']).default(usualSettings.label),
  paper: z.enum(['a4', 'letter']).default(usualSettings.paper),
  units: z.enum(['metric', 'imperial']).default(usualSettings.units),
});
export const siteSettingsAnswer = z.object({
  settings: siteSettings,
  waves: z.int().describe('Waves under way, which keep what they were planned with'),
});
