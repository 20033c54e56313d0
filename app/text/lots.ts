import i18next from 'i18next';

/** As many serial numbers as a sentence bears. */
const MOST = 6;

/** Lots and serial numbers as part of a sentence: "lot A4901, serial 1, 2"; empty where there are none. */
export function lotWords(
  parts: readonly { lot?: string | null | undefined; serial?: string | null | undefined }[],
): string {
  const all = (of: (p: (typeof parts)[number]) => string | null | undefined) => [
    ...new Set(parts.flatMap((p) => of(p) || [])),
  ];
  const lots = all((p) => p.lot);
  const serials = all((p) => p.serial);
  const shown = serials.slice(0, MOST).join(', ') + (serials.length > MOST ? ', …' : '');
  return [
    lots.length > 0 && i18next.t('lots.lot', { lot: lots.join(', ') }),
    serials.length > 0 && i18next.t('lots.serial', { serial: shown }),
  ]
    .filter(Boolean)
    .join(', ');
}
