/** Short words that are told apart when called across a hall: two syllables at most, no two alike in sound. */
const words = (
  'amber anchor apple arrow badger bamboo banjo barrel basket beacon bison bramble bridge bucket butter cactus candle ' +
  'canyon carrot castle cedar cherry cobalt comet copper coral cricket crystal daisy dragon drum eagle ember falcon fern ' +
  'feather fiddle flint forest fox galaxy garden ginger glacier granite hammer harbour hazel heron honey hornet indigo ' +
  'island ivory jaguar jasper jungle kettle kiwi ladder lantern lemon lily lobster magnet mango maple marble meadow melon ' +
  'mint mirror monsoon moss mustard needle nickel nutmeg oak oasis ocean olive onyx orbit orchid otter oyster paddle panda ' +
  'paper parrot pebble pepper petal pilot plum poppy prairie puffin pumpkin quartz quill rabbit radish raven ribbon river ' +
  'robin rocket ruby saddle saffron salmon sandal sapphire shadow silver sparrow spruce squid summit sunset swan tango ' +
  'teapot thistle thunder tiger timber topaz trumpet tulip tundra turtle velvet violet walnut walrus willow winter yarrow zebra'
).split(' ');

/**
 * Call signs that nothing waiting bears, going round the list so that a word just used is not soon used again. When
 * all words are out, they come back with a number.
 */
export function callSigns(count: number, taken: ReadonlySet<string>, from: number): string[] {
  const signs: string[] = [];
  for (let round = 1; signs.length < count; round++)
    for (let i = 0; i < words.length && signs.length < count; i++) {
      const word = words[(from * 7 + i) % words.length]!;
      const sign = round === 1 ? word : `${word} ${round}`;
      if (!taken.has(sign) && !signs.includes(sign)) signs.push(sign);
    }
  return signs;
}
