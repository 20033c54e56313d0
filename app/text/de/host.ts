import type { Same } from '../same.ts';
import type { host as english } from '../en/host.ts';

/** Der Stellvertreter des Hostsystems. */
export const host: Same<typeof english> = {
  host: {
    title: 'Hostsystem',
    about:
      'Steht für das System, in dem Aufträge erfasst werden. Es sendet neue Aufträge, Änderungen und Stornos und empfängt, was bestätigt wird. Ein echtes benutzt dieselben Adressen.',
    orders: 'Neue Aufträge',
    changes: 'Änderungen',
    cancellations: 'Stornos',
    every: 'Alle, Sekunden',
    between: '{{least}} bis {{most}}',
    send: 'Einmal senden',
    start: 'Laufend senden',
    stop: 'Senden beenden',
    running:
      'Sendet alle {{every}} s: neue Aufträge {{orders}}, Änderungen {{changes}}, Stornos {{cancellations}}. Empfängt Bestätigungen.',
    receive_one: '{{count}} Bestätigung empfangen',
    receive_other: '{{count}} Bestätigungen empfangen',
    kind: {
      order: 'Neuer Auftrag {{order}}',
      change: 'Änderung von {{order}}',
      cancellation: 'Storno von {{order}}',
      confirmation: 'Bestätigt: {{order}}',
    },
    outcome: {
      new: 'importiert',
      same: 'unverändert',
      changed: 'geändert',
      adapts: 'in Arbeit, wird angepasst',
      'under-way': 'kann sich nicht selbst anpassen: von Hand ändern',
      refused: 'abgelehnt bei {{column}}',
      cancelled: 'storniert',
      surplus: 'storniert; $t(unit.units, {"count": {{surplus}} }) schon gepickt, warten auf eine Entscheidung',
      closed: 'war schon abgeschlossen',
      unknown: 'unbekannter Auftrag',
    },
    noTracking: 'keine Sendungsnummer',
    invoice: 'zu berechnen',
    noInvoice: 'keine Rechnung',
    received: 'Empfangen um {{time}}',
    waits: 'Der Host hat es noch nicht',
    open: '{{order}} öffnen',
    emptyTitle: 'Noch keine Nachrichten',
    emptyText: 'Sende etwas oder bestätige eine Sendung.',
  },
};
