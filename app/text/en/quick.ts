/** What the quick path says. `{{name}}` are the facts. */
export const quick = {
  quick: {
    title: 'Quick',
    keys: 'Enter goes to the next line, Ctrl+Enter confirms, A sets all as ordered.',
    asAsked: 'All as ordered',
    confirm: 'Confirm and ship {{orders}}, {{units}}',
    done: '{{orders}} shipped, {{units}}.',
    goes: '{{number}} goes now',
    shipsComplete: 'Ships complete. It waits until all of it is in stock.',
    nothing: 'Nothing counted. It stays open.',
    noBin: 'Not in any bin',
    short: '{{gets}} of {{asked}} in stock',
    ofAsked: 'of {{asked}} × {{unit}}',
    units: 'Line {{line}}, {{name}}: units picked',
    serials: 'Line {{line}}, {{name}}: serial numbers picked',
    serialHint: 'Scan or type',
    wrong: {
      number: 'A whole number.',
      'more-than-asked': 'At most {{asked}}.',
      'more-than-there': 'Only {{gets}} there.',
      serials: 'Not in these bins.',
    },
    emptyTitle: 'Nothing is due',
    emptyText: 'What is due by today and not started yet shows here.',
    more_one: '{{count}} more order follows when these are done.',
    more_other: '{{count}} more orders follow when these are done.',
  },
};
