/** How a site works, as Setup words it. */
export const way = {
  way: {
    title: 'How this site works',
    saved: 'Saved. Everybody works this way from now on.',
    takeBack: 'Take back what was saved',
    back: 'As it was before.',
    save_one: 'Save {{count}} change',
    save_other: 'Save {{count}} changes',
    asItWas: 'As it was',
    underWay_one: '{{count}} wave is under way: its picks follow the new way from the next scan on.',
    underWay_other: '{{count}} waves are under way: their picks follow the new way from the next scan on.',
    elsewhere: 'On pages of their own',
    stages: {
      title: 'From the shelf to the truck',
      'pick-pack-ship': 'Pick, pack, ship',
      'pick-ship': 'Pick, ship',
      'pick-and-ship': 'Pick and ship in one',
      about: {
        'pick-pack-ship':
          'A cart is left for a bench. The bench packs each order into cartons with labels, the dock confirms them.',
        'pick-ship': 'No bench. A cart is left at the dock, and the dock confirms each order as it stands on the cart.',
        'pick-and-ship':
          'No bench and no confirmation. An order leaves the moment the last cart with its goods is left; its carrier is asked for the number. What cannot leave waits at the dock.',
      },
    },
    reserve: {
      title: 'When stock is reserved',
      intake: 'As the order comes in',
      hand: 'By hand',
      release: 'At release',
      scan: 'At the scan',
      about: {
        intake: 'First come, first served: an order has its stock from the moment it is taken in.',
        hand: 'Somebody keeps stock for an order on its page. What nobody kept is reserved at release.',
        release: 'Priority and ship date decide, when a wave is released. Until then everything is free.',
        scan: 'A release promises nothing: who scans first has it. A scan is refused when the rest was reserved for others.',
      },
    },
    countReleased: 'What is released counts as taken, though it is not reserved',
    picking: {
      title: 'What a picker scans',
      one: 'One order on the cart',
      many: 'Several orders on the cart',
    },
    check: { bin: 'Bin', item: 'Item', lot: 'Lot', position: 'Place on the cart', carton: 'Carton' },
    order: { title: 'First', 'bin-first': 'Bin', 'item-first': 'Item', either: 'Whichever comes' },
    counting: { title: 'Count', packs: 'Scan packs, or type', each: 'Scan every pack', once: 'One scan for all' },
    drop: {
      title: 'Goods go',
      place: 'To a place on the cart',
      carton: 'Into the carton that ships',
      about:
        'Pickers put empty cartons on the cart and stick a number on each, printed ahead under Printing. What lies in them needs no bench.',
    },
    example: 'A pick of 3 units of a lot then asks:',
    noItem: 'Nothing proves that the right goods were taken.',
    ask: {
      bin: 'Scan bin {{bin}}',
      binOrItem: 'Scan bin {{bin}} or the item, in either order',
      item: {
        packs: 'Scan packs or units up to {{units}}, or type {{units}}',
        each: 'Scan each, up to {{units}}',
        once: 'Scan the item once: {{units}} count as taken',
      },
      lot: 'Scan lot {{lot}}, where the item scan did not tell it',
      position: 'Scan place {{position}}',
      carton: 'Scan the number on the carton',
    },
    setUp: {
      title: 'Before the first stop',
      none: 'Go at once',
      confirm: 'Set up the cart',
      about:
        'Each order gets its place by scans: the place that the plan proposes, or another. What finds no place on the cart waits as a run of its own.',
    },
    lookAlikes: {
      title: 'Look-alikes',
      off: 'Say nothing',
      tell: 'Tell them apart',
      each: 'And scan each unit',
      about:
        'Goods beside the bin that are easily taken for those asked: by name, size, picture, number, or because scans caught it before.',
    },
    nearlyEmpty: 'Ask what is left from so many units down',
    nearlyEmptyAbout:
      'After a pick that should leave no more than that, one touch says whether it is so: a count without a walk. Leave it empty to never ask.',
    countLimit: 'A count puts the books right by itself up to a difference of',
    countLimitAbout: 'What differs by more units waits at the Desk until somebody agrees.',
    expressLane: 'Lane of urgent runs',
    expressLaneAbout: 'Runs with a priority are sent there whatever lane their orders have. Leave it empty for none.',
    otherWork: 'Other work',
    otherWorkAbout: 'What pickers record beside picking, parted by commas, in your own words.',
    lotSwaps: 'A picker may take another lot',
    lotSwapsYes:
      'Where another lot lies in the bin, is free and lasts long enough for the customer. The promise goes with it.',
    lotSwapsNo: 'Only the lot that was promised is taken.',
    bins: {
      title: 'From which bin',
      about: 'The first rule that tells two bins apart decides. Drop a rule by a touch; add it again at the end.',
      rule: {
        expiry: 'What expires first',
        age: 'What came in first',
        home: 'The home bin',
        whole: 'One bin for all of it',
        remainder: 'The smallest remainder',
        reach: 'The lowest level',
        walk: 'The shortest walk of the run',
      },
      drop: 'Drop: {{rule}}',
      add: 'Add: {{rule}}',
      sooner: 'Sooner: {{rule}}',
      none: 'No rule: the lower bin code is taken.',
    },
    carry: {
      title: 'On the cart',
      heavyFirst: 'Heavy goods first, fragile ones last',
      chilledLast: 'Chilled goods last',
      highTogether: 'High levels in one stretch',
      about: 'A run may become longer by it. Without any of them each run is the shortest walk there is.',
    },
    walking: {
      title: 'How a run is walked',
      by: { title: 'Along', shortest: 'The shortest walk', sequence: 'The numbers of the bins' },
      between: { title: 'Each run', home: 'From the start and back', chain: 'From where the last one ended' },
      direction: { title: 'Direction', alternate: 'Whichever way round is less walk', one: 'Always the same' },
      about: {
        shortest: 'Worked out over the floor as it is, and proven wherever it can be.',
        sequence:
          'Lowest number first, as Setup numbers the bins. The plan still says how much longer that is than the shortest.',
        chain:
          'Nobody walks back between runs. Among runs as urgent as each other the next is the one with the least walk over all.',
      },
    },
    ownTrips: 'A picker may gather a trip of their own from what waits',
    sounds: { title: 'Sounds', accepted: 'Scan taken', refused: 'Scan refused', finished: 'Run finished' },
    hear: 'Hear',
    printing: 'Printing',
    label: { title: 'Carton labels', '4x6': '4 × 6 inches', a6: 'A6' },
    paper: { title: 'Packing slips', a4: 'A4', letter: 'Letter' },
    units: { title: 'Units shown', metric: 'Kilograms and metres', imperial: 'Pounds and feet' },
    unitsKept: 'Files, the API and Setup’s own tables stay in grams, millimetres and metres.',
  },
};
