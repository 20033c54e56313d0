/** Confirming a run at once, as after picking by paper. */
export const confirmRun = {
  confirmRun: {
    key: 'Confirm at once',
    title: 'Confirm run {{run}}, {{sign}}',
    text: 'Everything counts as picked as planned. Tick what differs.',
    cart: 'Cart',
    lane: 'Cart left in',
    picker: 'Picked by',
    me: 'Me',
    picks: 'Open picks',
    place: 'place {{place}}',
    differs: 'Differs',
    units: 'In hand',
    serials: 'Serial numbers',
    reason: 'Reason',
    note: 'Note',
    short_one: '{{count}} unit is short: it goes back to the Desk, and its bin is counted.',
    short_other: '{{count}} units are short: they go back to the Desk, and their bins are counted.',
    do_one: 'Confirm {{count}} pick',
    do_other: 'Confirm {{count}} picks',
    done: 'Run {{run}} is confirmed, its cart is in {{lane}}.',
    fault: {
      units: 'From 0 to {{units}}.',
      reason: 'Choose why it is short.',
      serials: 'As many serial numbers of this bin as are in hand.',
    },
  },
};
