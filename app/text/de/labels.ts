import type { Same } from '../same.ts';
import type { labels as english } from '../en/labels.ts';

/** Etiketten für Wagen, Plätze, Spuren, Artikel und Personen. */
export const labels: Same<typeof english> = {
  labels: {
    title: 'Etiketten drucken',
    what: 'Für',
    kind: {
      carts: 'Wagen',
      'cart-places': 'Plätze auf Wagen',
      lanes: 'Spuren',
      benches: 'Packplätze',
      doors: 'Tore',
      'carton-types': 'Kartontypen',
      items: 'Artikel',
      people: 'Personen',
    },
    size: 'Größe',
    sizes: { sheet: 'A4, 24 je Blatt', '62x29': '62 × 29 mm', '4x6': '4 × 6 Zoll', a6: 'A6' },
    code: 'Kürzel',
    name: 'Name',
    mark: '{{code}} markieren',
    find: 'Kürzel oder Name suchen',
    look: 'Vorschau',
    print_one: '{{count}} Etikett drucken',
    print_other: '{{count}} Etiketten drucken',
    sent_one: '{{count}} Etikett an {{printer}} gesendet.',
    sent_other: '{{count}} Etiketten an {{printer}} gesendet.',
    none: 'Nichts zu etikettieren',
    noneText: 'Richte es zuerst ein, oder suche etwas anderes.',
  },
};
