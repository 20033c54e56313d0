/** What the quick path says. `{{name}}` are the facts. */
export const quick = {
  quick: {
    title: 'Quick',
    keys: 'Enter goes to the next line, Ctrl+Enter confirms, A sets all as asked.',
    asAsked: 'All as asked',
    confirm: 'Confirm and ship {{orders}}, {{units}}',
    done: '{{orders}} shipped, {{units}}.',
    goes: '{{number}} goes now',
    shipsComplete: 'Ships complete or not at all. It stays until all of it is there.',
    nothing: 'Nothing of it is counted. It stays.',
    noBin: 'In no bin',
    short: '{{gets}} of {{asked}} are there',
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
