/** A group of items that differ in size or make. Sizes in millimetres, weights in grams, values in pence. */
export interface Family {
  code: string;
  /** What the drawing shows. */
  picture: string;
  unit: string;
  zone: 'small' | 'hive' | 'glass' | 'cloth' | 'treat' | 'cage' | 'heavy' | 'chill';
  handling: 'easy' | 'heavy' | 'two-person' | 'fragile';
  temperature: 'ambient' | 'chilled';
  apart: string | null;
  keepUpright: boolean;
  /** Weight that may rest on a unit, in its own weights; null where any may. */
  bears: number | null;
  tracksLot: boolean;
  tracksSerial: boolean;
  /** Units in an inner and outer pack; null where there is none. */
  packs: [inner: number | null, outer: number | null];
  /** How often orders ask for it, beside other families. */
  demand: number;
  variants: Variant[];
}

export interface Variant {
  name: string;
  /** Drawn detail: a colour word, a number or a letter. */
  mark: string;
  size: [number, number, number];
  weightG: number;
  valueMinor: number;
}

const hives = [
  ['Standard', 432],
  ['Deep', 432],
  ['Half', 380],
  ['Jumbo', 508],
  ['Shallow', 432],
  ['Nucleus', 280],
] as const;
const sizes = ['XS', 'S', 'M', 'L', 'XL', 'XXL'] as const;
const colours = ['white', 'yellow', 'red', 'green', 'blue'] as const;

type Rest = Partial<
  Pick<
    Family,
    'handling' | 'temperature' | 'apart' | 'keepUpright' | 'bears' | 'tracksLot' | 'tracksSerial' | 'packs' | 'demand'
  >
>;
const family = (
  code: string,
  picture: string,
  unit: string,
  zone: Family['zone'],
  variants: Variant[],
  rest: Rest = {},
): Family => ({
  code,
  picture,
  unit,
  zone,
  handling: 'easy',
  temperature: 'ambient',
  apart: null,
  keepUpright: false,
  bears: null,
  tracksLot: false,
  tracksSerial: false,
  packs: [null, null],
  demand: 3,
  variants,
  ...rest,
});
const variant = (
  name: string,
  mark: string,
  size: [number, number, number],
  weightG: number,
  valueMinor: number,
): Variant => ({ name, mark, size, weightG, valueMinor });

/** What Larkmoor Apiary Supply sells: about 320 items in believable proportions. */
export const families: Family[] = [
  family(
    'FR',
    'frame',
    'frame',
    'hive',
    hives.flatMap(([h, w], i) =>
      ['Beech', 'Pine'].flatMap((wood) =>
        ['flat', 'assembled', 'wired'].map((make, k) =>
          variant(
            `${h} frame, ${wood.toLowerCase()}, ${make}`,
            `${h[0]}${wood[0]}`,
            [w, make === 'flat' ? 30 : 36, 140 + i * 22],
            180 + i * 25,
            145 + k * 40,
          ),
        ),
      ),
    ),
    { packs: [10, 50], demand: 10 },
  ),
  family(
    'FW',
    'wax',
    'sheet',
    'hive',
    hives.flatMap(([h, w]) =>
      ['plain', 'wired', 'drone'].map((make, k) =>
        variant(`Foundation wax, ${h}, ${make}`, h[0]!, [w - 30, 4, 210], 72, 110 + k * 25),
      ),
    ),
    { handling: 'fragile', packs: [10, 100], demand: 9 },
  ),
  family(
    'JR',
    'jar',
    'jar',
    'glass',
    ['Round', 'Hexagon', 'Square', 'Skep', 'Flat-face'].flatMap((shape) =>
      ([30, 110, 227, 340, 454, 1000] as const).map((ml) =>
        variant(
          `${shape} jar, ${ml} ml`,
          `${ml}`,
          [Math.round(22 + ml ** 0.5 * 2.2), Math.round(22 + ml ** 0.5 * 2.2), Math.round(40 + ml ** 0.5 * 3.4)],
          Math.round(45 + ml * 0.42),
          38 + Math.round(ml / 12),
        ),
      ),
    ),
    { handling: 'fragile', packs: [12, 72], demand: 14 },
  ),
  family(
    'LD',
    'lid',
    'lid',
    'glass',
    ['Gold', 'White', 'Black', 'Silver', 'Check', 'Comb'].flatMap((c) =>
      [43, 63, 70].map((d) => variant(`Lid, ${c.toLowerCase()}, ${d} mm`, c.toLowerCase(), [d, d, 14], 9, 12)),
    ),
    { packs: [24, 480], demand: 8 },
  ),
  family(
    'LB',
    'roll',
    'roll',
    'small',
    ['Heather', 'Lime', 'Borage', 'Clover', 'Woodland', 'Blank', 'Tamper strip', 'Award'].map((n) =>
      variant(`Jar labels, ${n.toLowerCase()}, 500`, n[0]!, [90, 90, 60], 210, 1150),
    ),
    { demand: 4 },
  ),
  family(
    'SM',
    'smoker',
    'piece',
    'small',
    ['Small, steel', 'Large, steel', 'Small, copper', 'Large, copper', 'Long-spout', 'Caged'].map((n, i) =>
      variant(`Smoker, ${n.toLowerCase()}`, n[0]!, [240, 130, 260 + i * 6], 900 + i * 60, 2650 + i * 300),
    ),
    { packs: [null, 6], demand: 5 },
  ),
  family(
    'SF',
    'sack',
    'bag',
    'small',
    ['Hessian', 'Pine needle', 'Cotton', 'Pellet'].map((n) =>
      variant(`Smoker fuel, ${n.toLowerCase()}, 1 kg`, n[0]!, [220, 160, 90], 1020, 690),
    ),
    { demand: 5 },
  ),
  family(
    'ST',
    'suit',
    'piece',
    'cloth',
    ['Suit', 'Jacket', 'Smock'].flatMap((kind, k) =>
      ['white', 'olive'].flatMap((c) =>
        sizes.map((s) => variant(`${kind}, ${c}, ${s}`, s, [380, 300, 70 - k * 10], 1350 - k * 320, 9900 - k * 2600)),
      ),
    ),
    { demand: 6 },
  ),
  family(
    'GL',
    'glove',
    'pair',
    'cloth',
    ['Leather', 'Nitrile'].flatMap((m, k) =>
      sizes.map((s) => variant(`Gloves, ${m.toLowerCase()}, ${s}`, s, [300, 130, 30], k ? 90 : 240, k ? 950 : 2150)),
    ),
    { packs: [6, null], demand: 6 },
  ),
  family(
    'VL',
    'veil',
    'piece',
    'cloth',
    ['Round', 'Square', 'Fencing', 'Folding'].map((n) =>
      variant(`Veil, ${n.toLowerCase()}`, n[0]!, [320, 320, 60], 260, 2400),
    ),
    { demand: 3 },
  ),
  family(
    'SY',
    'canister',
    'canister',
    'chill',
    ['Autumn', 'Spring', 'Inverted', 'Thymol'].flatMap((n) =>
      ([2, 5, 14] as const).map((kg) =>
        variant(
          `Feed syrup, ${n.toLowerCase()}, ${kg} kg`,
          `${kg}`,
          [110 + kg * 10, 100 + kg * 8, 150 + kg * 10],
          kg * 1040,
          340 + kg * 190,
        ),
      ),
    ),
    {
      handling: 'heavy',
      temperature: 'chilled',
      apart: 'food',
      keepUpright: true,
      tracksLot: true,
      packs: [null, 6],
      demand: 9,
    },
  ),
  family(
    'PP',
    'tub',
    'tub',
    'chill',
    ['Plain', 'With vitamins', 'With yeast'].flatMap((n) =>
      ([250, 500, 1000] as const).map((g) =>
        variant(
          `Pollen paste, ${n.toLowerCase()}, ${g} g`,
          `${g}`,
          [110, 110, 50 + g / 14].map(Math.round) as [number, number, number],
          g + 40,
          420 + g,
        ),
      ),
    ),
    {
      temperature: 'chilled',
      apart: 'food',
      keepUpright: true,
      bears: 8,
      tracksLot: true,
      packs: [12, null],
      demand: 8,
    },
  ),
  family(
    'FD',
    'block',
    'block',
    'small',
    ['Fondant', 'Fondant with pollen'].flatMap((n) =>
      ([1, 2, 12] as const).map((kg) =>
        variant(`${n}, ${kg} kg`, `${kg}`, [220, 150 + kg * 5, 40 + kg * 12], kg * 1010, 260 + kg * 240),
      ),
    ),
    { apart: 'food', tracksLot: true, packs: [10, null], demand: 6 },
  ),
  family(
    'EX',
    'drum',
    'piece',
    'heavy',
    [
      '3-frame, hand',
      '4-frame, hand',
      '6-frame, hand',
      '4-frame, motor',
      '6-frame, motor',
      '9-frame, motor',
      '12-frame, radial',
      '20-frame, radial',
    ].map((n, i) =>
      variant(
        `Honey extractor, ${n}`,
        n.split('-')[0]!,
        [560 + i * 40, 560 + i * 40, 880],
        14000 + i * 4200,
        28900 + i * 17000,
      ),
    ),
    { handling: 'two-person', demand: 1 },
  ),
  family(
    'RF',
    'refractometer',
    'piece',
    'cage',
    ['Honey, basic', 'Honey, with light', 'Honey, digital', 'Syrup', 'Dual scale', 'Calibration set'].map((n, i) =>
      variant(`Refractometer, ${n.toLowerCase()}`, n[0]!, [205, 80, 70], 420 + i * 40, 4200 + i * 2600),
    ),
    { tracksSerial: true, demand: 2 },
  ),
  family(
    'HS',
    'scale',
    'piece',
    'cage',
    ['50 kg', '100 kg', '150 kg', 'Solar', 'Two-hive', 'Gateway'].map((n, i) =>
      variant(`Hive scale, ${n.toLowerCase()}`, n[0]!, [480, 400, 70], 3800 + i * 300, 19900 + i * 3000),
    ),
    { tracksSerial: true, demand: 1 },
  ),
  family(
    'AC',
    'flask',
    'bottle',
    'treat',
    ['Oxalic acid', 'Formic acid 60 %', 'Lactic acid'].flatMap((n) =>
      ([275, 500, 1000] as const).map((ml) =>
        variant(`${n}, ${ml} ml`, `${ml}`, [75, 75, Math.round(130 + ml / 12)], ml + 90, 780 + ml),
      ),
    ),
    { apart: 'acid', keepUpright: true, bears: 6, tracksLot: true, packs: [6, null], demand: 5 },
  ),
  family(
    'HB',
    'box',
    'piece',
    'hive',
    hives.flatMap(([h, w], i) =>
      ['Brood box', 'Super', 'Roof', 'Floor', 'Crown board'].map((part, k) =>
        variant(
          `${part}, ${h}, cedar`,
          h[0]!,
          [w + 28, w + 28, k < 2 ? 225 - k * 75 : 60],
          k < 2 ? 3900 - k * 900 + i * 120 : 1800,
          2200 + (k < 2 ? 1700 : 0) + i * 90,
        ),
      ),
    ),
    { handling: 'heavy', demand: 6 },
  ),
  family(
    'HT',
    'tool',
    'piece',
    'small',
    ['J-hook', 'Flat', 'Wide', 'Frame grip', 'Frame rest', 'Scraper', 'Comb cutter', 'Wedge', 'Long', 'Brass'].map(
      (n) => variant(`Hive tool, ${n.toLowerCase()}`, n[0]!, [260, 50, 12], 240, 890),
    ),
    { packs: [10, null], demand: 6 },
  ),
  family(
    'UK',
    'fork',
    'piece',
    'small',
    ['Knife, plain', 'Knife, heated', 'Fork, straight', 'Fork, cranked', 'Roller', 'Plane', 'Tray', 'Stand'].map(
      (n, i) => variant(`Uncapping ${n.toLowerCase()}`, n[0]!, [340, 90, 60], 380 + i * 90, 1650 + i * 420),
    ),
    { demand: 3 },
  ),
  family(
    'BR',
    'brush',
    'piece',
    'small',
    ['Soft', 'Firm', 'Long', 'Double'].map((n) =>
      variant(`Bee brush, ${n.toLowerCase()}`, n[0]!, [360, 60, 20], 95, 520),
    ),
    { packs: [12, null], demand: 5 },
  ),
  family(
    'QM',
    'pen',
    'piece',
    'small',
    [
      ...colours.map((c) => variant(`Queen marking pen, ${c}`, c, [140, 14, 14], 18, 460)),
      ...colours.map((c) => variant(`Queen number discs, ${c}, 1–99`, c, [80, 60, 6], 12, 590)),
    ],
    { packs: [10, null], demand: 6 },
  ),
  family(
    'QC',
    'cage',
    'piece',
    'small',
    ['Plunger', 'Press-in', 'Hair roller', 'Shipping'].map((n) =>
      variant(`Queen cage, ${n.toLowerCase()}`, n[0]!, [80, 40, 20], 20, 180),
    ),
    { packs: [20, 200], demand: 5 },
  ),
  family(
    'FE',
    'feeder',
    'piece',
    'hive',
    [
      'Rapid, 1 l',
      'Rapid, 2 l',
      'Contact, 3 l',
      'Contact, 5 l',
      'Frame, Standard',
      'Frame, Jumbo',
      'Top, Standard',
      'Top, Jumbo',
      'Entrance',
      'Nucleus',
    ].map((n, i) => variant(`Feeder, ${n}`, n[0]!, [230, 230, 90 + i * 4], 310 + i * 60, 750 + i * 120)),
    { demand: 5 },
  ),
  family(
    'FI',
    'sieve',
    'piece',
    'small',
    ['Double', 'Coarse', 'Fine', 'Conical', 'Tank bag', 'Tank bag, fine', 'Bucket', 'Inline', 'Drip'].map((n, i) =>
      variant(`Honey strainer, ${n.toLowerCase()}`, n[0]!, [240, 240, 90], 420 + i * 30, 1250 + i * 150),
    ),
    { demand: 4 },
  ),
  family(
    'BK',
    'bucket',
    'piece',
    'glass',
    ([5, 10, 15, 20, 30, 33] as const).map((l) =>
      variant(
        `Bucket with honey gate, ${l} l`,
        `${l}`,
        [200 + l * 5, 200 + l * 5, 210 + l * 7],
        480 + l * 32,
        920 + l * 38,
      ),
    ),
    { demand: 4 },
  ),
  family(
    'CM',
    'mould',
    'piece',
    'small',
    ['Pillar', 'Taper', 'Skep', 'Bee', 'Rose', 'Owl', 'Fir cone', 'Egg', 'Star', 'Tealight'].map((n) =>
      variant(`Candle mould, ${n.toLowerCase()}`, n[0]!, [90, 90, 130], 240, 1490),
    ),
    { demand: 3 },
  ),
  family(
    'WK',
    'spool',
    'spool',
    'small',
    [1, 2, 3, 4, 5, 6].map((n) => variant(`Candle wick no. ${n}, 50 m`, `${n}`, [80, 80, 60], 110, 640)),
    { packs: [10, null], demand: 3 },
  ),
];

/** Dangerous goods by the beginning of their name: number, proper shipping name and class of the UN Model Regulations. */
const hazards = [
  ['Oxalic acid', 'UN 3261 Corrosive solid, acidic, organic, n.o.s., 8'],
  ['Formic acid', 'UN 3412 Formic acid, 8'],
] as const;

/** What is dangerous about an item of the catalogue; empty for most. */
export const hazardOf = (name: string): string => hazards.find(([begins]) => name.startsWith(begins))?.[1] ?? '';
