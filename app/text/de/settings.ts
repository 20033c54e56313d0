import type { Same } from '../same.ts';
import type { settings as english } from '../en/settings.ts';

/** Wie ein Standort arbeitet. */
export const settings: Same<typeof english> = {
  settings: {
    title: 'Wie dieser Standort arbeitet',
    saved: 'Gespeichert. Es gilt ab jetzt für alle.',
    takeBack: 'Diese Änderung rückgängig machen',
    back: 'Änderung rückgängig gemacht.',
    unsaved_one:
      'Wie dieser Standort arbeitet: {{count}} Änderung ist nicht gespeichert. Öffne die Seite, um sie zu speichern oder zu verwerfen.',
    unsaved_other:
      'Wie dieser Standort arbeitet: {{count}} Änderungen sind nicht gespeichert. Öffne die Seite, um sie zu speichern oder zu verwerfen.',
    save_one: '{{count}} Änderung speichern',
    save_other: '{{count}} Änderungen speichern',
    asItWas: 'Änderungen verwerfen',
    underWay_one: '{{count}} Welle läuft: Ihre Picks folgen ab dem nächsten Scan den neuen Einstellungen.',
    underWay_other: '{{count}} Wellen laufen: Ihre Picks folgen ab dem nächsten Scan den neuen Einstellungen.',
    elsewhere: 'Auf eigenen Seiten',
    stages: {
      title: 'Vom Regal bis zum Lkw',
      'pick-pack-ship': 'Picken, packen, versenden',
      'pick-ship': 'Picken, versenden',
      'pick-and-ship': 'Picken und versenden in einem',
      about: {
        'pick-pack-ship':
          'Ein Wagen wird für einen Packplatz abgestellt. Dort wird jeder Auftrag in Kartons mit Etikett gepackt, die Rampe bestätigt sie.',
        'pick-ship':
          'Kein Packplatz. Ein Wagen wird an der Rampe abgestellt, und die Rampe bestätigt jeden Auftrag, wie er auf dem Wagen liegt.',
        'pick-and-ship':
          'Kein Packplatz und keine Bestätigung. Ein Auftrag geht, sobald der letzte Wagen mit seiner Ware abgestellt ist; sein Spediteur wird nach der Nummer gefragt. Was nicht gehen kann, wartet an der Rampe.',
      },
    },
    reserve: {
      title: 'Wann Bestand reserviert wird',
      intake: 'Wenn der Auftrag kommt',
      hand: 'Von Hand',
      release: 'Bei der Freigabe',
      scan: 'Beim Scan',
      about: {
        intake: 'Wer zuerst kommt: Bestand wird für einen Auftrag reserviert, sobald er eintrifft.',
        hand: 'Jemand reserviert Bestand für einen Auftrag auf dessen Seite. Der Rest wird bei der Freigabe reserviert.',
        release: 'Priorität und Termin entscheiden, wenn eine Welle freigegeben wird. Bis dahin ist alles verfügbar.',
        scan: 'Eine Freigabe reserviert nichts: Der erste Scan bekommt den Bestand. Ein Scan wird abgelehnt, wenn der Rest für andere Aufträge reserviert ist.',
      },
    },
    countReleased: 'Freigegebene Mengen zählen als vergeben, auch wenn sie nicht reserviert sind',
    picking: {
      title: 'Was ein Picker scannt',
      one: 'Ein Auftrag auf dem Wagen',
      many: 'Mehrere Aufträge auf dem Wagen',
    },
    check: { bin: 'Fach', item: 'Artikel', lot: 'Charge', position: 'Platz auf dem Wagen', carton: 'Karton' },
    order: { title: 'Zuerst', 'bin-first': 'Fach', 'item-first': 'Artikel', either: 'Was zuerst kommt' },
    counting: {
      title: 'Zählen',
      packs: 'Packungen scannen oder tippen',
      each: 'Jede Packung scannen',
      once: 'Ein Scan für alles',
    },
    drop: {
      title: 'Ware kommt',
      place: 'Auf einen Platz des Wagens',
      carton: 'In den Karton, der versandt wird',
      about:
        'Picker stellen leere Kartons auf den Wagen und kleben auf jeden eine Nummer, die unter Drucken vorab gedruckt wird. Ware darin überspringt den Packplatz.',
    },
    example: 'Ein Pick von 3 Stück einer Charge fragt dann:',
    noItem: 'Nichts beweist, dass die richtige Ware genommen wurde.',
    ask: {
      bin: 'Fach {{bin}} scannen',
      binOrItem: 'Fach {{bin}} oder den Artikel scannen, in beliebiger Folge',
      item: {
        packs: 'Packungen oder Stück bis {{units}} scannen oder {{units}} tippen',
        each: 'Jedes scannen, bis {{units}}',
        once: 'Den Artikel einmal scannen: {{units}} zählen als genommen',
      },
      lot: 'Charge {{lot}} scannen, wenn der Artikelscan sie nicht nennt',
      position: 'Platz {{position}} scannen',
      carton: 'Die Nummer auf dem Karton scannen',
    },
    setUp: {
      title: 'Vor dem ersten Halt',
      none: 'Sofort los',
      confirm: 'Wagen einrichten',
      about:
        'Jeder Auftrag bekommt seinen Platz durch Scans: den vorgeschlagenen oder einen anderen. Was keinen Platz findet, wartet als eigener Rundgang.',
    },
    touch: {
      title: 'Bestätigen per Berührung statt Scan',
      bin: 'Fach',
      item: 'Artikel',
      lot: 'Charge',
      position: 'Platz oder Karton',
      allowed: 'Erlaubt',
      reason: 'Mit Grund',
      never: 'Nur Scan',
      about:
        'Eine getippte Menge ist eine Berührung, solange vom Artikel nichts gescannt wurde. Der Verlauf unterscheidet Berührungen von Scans. Eine Rolle mit dem Recht dazu darf es immer.',
    },
    lookAlikes: {
      title: 'Verwechslungen',
      off: 'Aus',
      tell: 'Auf den Unterschied hinweisen',
      each: 'Und jedes Stück scannen',
      about:
        'Ware neben dem Fach, die leicht verwechselt wird: nach Name, Größe, Bild, Nummer oder weil Scans sie schon einmal abgefangen haben.',
    },
    nearlyEmpty: 'Nach dem Rest fragen ab, Stück',
    nearlyEmptyAbout:
      'Nach einem Pick, der höchstens so viel übrig lassen sollte, sagt eine Berührung, ob es stimmt: eine Zählung ohne Weg. Leer: nie fragen.',
    countLimit: 'Bestand von selbst berichtigen bis zu einer Differenz von',
    countLimitAbout: 'Größere Differenzen warten am Leitstand, bis jemand zustimmt.',
    expressLane: 'Spur für dringende Rundgänge',
    noExpressLane: 'Keine',
    expressLaneAbout: 'Rundgänge mit Priorität werden dorthin geschickt, egal welche Spur ihre Aufträge haben.',
    otherWork: 'Andere Arbeit',
    otherWorkAbout: 'Was Picker neben dem Picken erfassen, durch Kommas getrennt, in euren eigenen Worten.',
    otherBins: 'Ein Picker darf aus einem anderen Fach nehmen',
    otherBinsYes: 'Wer ein anderes Fach scannt, das alles von derselben Charge hat, nimmt den Pick von dort.',
    otherBinsNo: 'Ein anderes Fach wird abgelehnt, außer der Picker meldet am richtigen ein Problem.',
    lotSwaps: 'Ein Picker darf eine andere Charge nehmen',
    lotSwapsYes:
      'Wenn das Fach eine andere Charge hat, die verfügbar ist und für den Kunden lange genug hält. Die Zuteilung geht mit.',
    lotSwapsNo: 'Nur die reservierte Charge darf gepickt werden.',
    bins: {
      title: 'Aus welchem Fach',
      about:
        'Die erste Regel, die zwei Fächer unterscheidet, entscheidet. Antippen nimmt eine Regel weg; hinten fügst du sie wieder an.',
      rule: {
        expiry: 'Was zuerst abläuft',
        age: 'Was zuerst kam',
        home: 'Das Stammfach',
        whole: 'Ein Fach für alles',
        remainder: 'Der kleinste Rest',
        reach: 'Die unterste Ebene',
        walk: 'Der kürzeste Weg des Rundgangs',
      },
      drop: 'Entfernen: {{rule}}',
      add: 'Hinzufügen: {{rule}}',
      sooner: 'Früher: {{rule}}',
      none: 'Keine Regel: Das niedrigere Fachkürzel wird genommen.',
    },
    carry: {
      title: 'Auf dem Wagen',
      heavyFirst: 'Schweres zuerst, Zerbrechliches zuletzt',
      chilledLast: 'Gekühltes zuletzt',
      highTogether: 'Hohe Ebenen in einem Zug',
      about: 'Ein Rundgang kann dadurch länger werden. Ohne sie ist jeder der kürzeste Weg, den es gibt.',
    },
    walking: {
      title: 'Wie ein Rundgang geht',
      by: { title: 'Entlang', shortest: 'Dem kürzesten Weg', sequence: 'Den Nummern der Fächer' },
      between: { title: 'Jeder Rundgang', home: 'Vom Start und zurück', chain: 'Von dort, wo der letzte endete' },
      direction: { title: 'Richtung', alternate: 'Wie herum es weniger Weg ist', one: 'Immer gleich' },
      across: 'Auch Rundgänge verschiedener Abfahrten',
      about: {
        shortest: 'Berechnet über die Halle, wie sie ist, und bewiesen, wo immer es geht.',
        sequence:
          'Die niedrigste Nummer zuerst, wie die Einrichtung die Fächer nummeriert. Der Plan sagt trotzdem, wie viel länger das ist als der kürzeste Weg.',
        chain:
          'Niemand geht zwischen Rundgängen zurück. Unter gleich dringenden ist der nächste der mit dem wenigsten Weg insgesamt.',
      },
    },
    askCart: 'Ein Rundgang wird mit dem Scan eines Wagens übernommen; ohne ihn gilt der kleinste freie Wagen',
    ownTrips: 'Ein Picker darf sich aus dem Wartenden einen eigenen Rundgang zusammenstellen',
    sounds: { title: 'Töne', accepted: 'Scan angenommen', refused: 'Scan abgelehnt', finished: 'Rundgang fertig' },
    hear: 'Abspielen',
    printing: 'Drucken',
    label: { title: 'Kartonetiketten', '4x6': '4 × 6 Zoll', a6: 'A6' },
    packagingFor: 'Verpackung wird geführt bei',
    weighing: {
      title: 'Kartons wiegen',
      never: 'Nie',
      optional: 'Wenn Packer es wollen',
      always: 'Immer vor dem Schließen',
    },
    packing: 'Packen',
    labels: {
      title: 'Kartonetiketten drucken',
      hand: 'Von Hand',
      each: 'Beim Schließen jedes Kartons',
      all: 'Alle mit dem letzten Karton',
    },
    labelsAbout: {
      hand: 'Packer drucken jedes Etikett mit seiner Taste oder vom Blatt.',
      each: 'Auf dem Etikett steht „2“, und „2 von 3“, sobald alles vom Auftrag gepackt ist.',
      all: 'Auf jedem Etikett steht „2 von 3“. Die Kartons warten darauf, bis der Auftrag gepackt ist.',
    },
    slips: {
      title: 'Packzettel drucken',
      hand: 'Von Hand',
      first: 'Mit dem ersten Karton',
      last: 'Mit dem letzten Karton',
    },
    slipsAbout: {
      hand: 'Er wird am Tor oder aus der Sendung gedruckt.',
      first: 'Er nennt, was kommissioniert wurde; die Kartons sind noch nicht bekannt.',
      last: 'Er nennt die Kartons mit ihren Nummern.',
    },
    confirmLane: 'Geschlossene Kartons werden in ihrer Spur durch einen Scan der Spur bestätigt',
    paper: { title: 'Packzettel', a4: 'A4', letter: 'Letter' },
    atStart: {
      title: 'Wird beim Start einer Welle von selbst gedruckt',
      lists: 'Picklisten',
      slips: 'Ein Zettel je Auftrag',
      printer: 'Drucker',
      any: 'Einer, der Blätter druckt',
    },
    units: { title: 'Einheiten', metric: 'Kilogramm und Meter', imperial: 'Pfund und Fuß' },
    unitsKept: 'Dateien, die API und die Tabellen der Einrichtung bleiben bei Gramm, Millimetern und Metern.',
  },
};
