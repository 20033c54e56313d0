import type { Same } from '../same.ts';
import type { quick as english } from '../en/quick.ts';

/** Der schnelle Weg. */
export const quick: Same<typeof english> = {
  quick: {
    title: 'Schnell',
    keys: 'Enter geht zur nächsten Position, Strg+Enter bestätigt, A setzt alles wie bestellt.',
    asAsked: 'Alles wie bestellt',
    confirm: 'Bestätigen und versenden: {{orders}}, {{units}}',
    done: '{{orders}} versandt, {{units}}.',
    goes: '{{number}} geht jetzt',
    shipsComplete: 'Geht nur komplett. Er wartet, bis alles im Bestand ist.',
    nothing: 'Nichts gezählt. Er bleibt offen.',
    noBin: 'In keinem Fach',
    short: '{{gets}} von {{asked}} im Bestand',
    ofAsked: 'von {{asked}} × {{unit}}',
    units: 'Position {{line}}, {{name}}: gepickte Menge',
    serials: 'Position {{line}}, {{name}}: gepickte Seriennummern',
    serialHint: 'Scannen oder tippen',
    wrong: {
      number: 'Eine ganze Zahl.',
      'more-than-asked': 'Höchstens {{asked}}.',
      'more-than-there': 'Nur {{gets}} da.',
      serials: 'Nicht in diesen Fächern.',
    },
    emptyTitle: 'Nichts ist fällig',
    emptyText: 'Was bis heute fällig und noch nicht begonnen ist, steht hier.',
    more_one: '{{count}} weiterer Auftrag folgt, wenn diese erledigt sind.',
    more_other: '{{count}} weitere Aufträge folgen, wenn diese erledigt sind.',
  },
};
