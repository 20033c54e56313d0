import type { confirmRun as en } from '../en/confirmRun.ts';
import type { Same } from '../same.ts';

export const confirmRun: Same<typeof en> = {
  confirmRun: {
    key: 'Auf einmal bestätigen',
    title: 'Rundgang {{run}} bestätigen, {{sign}}',
    text: 'Alles gilt als wie geplant gepickt. Haken Sie an, was abweicht.',
    cart: 'Wagen',
    lane: 'Wagen steht in',
    picker: 'Gepickt von',
    me: 'Ich',
    picks: 'Offene Picks',
    place: 'Platz {{place}}',
    differs: 'Weicht ab',
    units: 'Vorhanden',
    serials: 'Seriennummern',
    reason: 'Grund',
    note: 'Notiz',
    short_one: '{{count}} Stück fehlt: Es geht zurück an den Desk, und das Fach wird gezählt.',
    short_other: '{{count}} Stück fehlen: Sie gehen zurück an den Desk, und die Fächer werden gezählt.',
    do_one: '{{count}} Pick bestätigen',
    do_other: '{{count}} Picks bestätigen',
    done: 'Rundgang {{run}} ist bestätigt, der Wagen steht in {{lane}}.',
    fault: {
      units: 'Von 0 bis {{units}}.',
      reason: 'Wählen Sie, warum es fehlt.',
      serials: 'So viele Seriennummern dieses Fachs, wie vorhanden sind.',
    },
  },
};
