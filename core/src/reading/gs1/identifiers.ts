/** How the value of an application identifier is written. */
export interface ElementRule {
  /** The value as a whole. */
  form: RegExp;
  /** Longest value. */
  most: number;
  /** Whether every value is as long as the longest, so that it ends without a separator too. */
  fixed: boolean;
  /** Whether a separator must follow unless the element is the last. */
  separated: boolean;
}

/**
 * Application identifiers and the form of their values (GS1 General Specifications, section 3.2, from memory): n digits, x
 * any characters, a number the exact length, two dots up to it; ranges of identifiers with a dash. A test holds them
 * against an independent parser.
 */
const forms = `
00 n18; 01-03 n14; 10 x..20; 11-13 n6; 15-17 n6; 20 n2; 21-22 x..20; 235 x..28; 240-241 x..30; 242 n..6; 243 x..20;
250-251 x..30; 253 n13 x..17; 254 x..20; 255 n13 n..12; 30 n..8; 3100-3169 n6; 3200-3379 n6; 3400-3579 n6; 3600-3699 n6;
37 n..8; 3900-3909 n..15; 3910-3919 n3 n..15; 3920-3929 n..15; 3930-3939 n3 n..15; 3940-3943 n4; 3950-3955 n6;
400-401 x..30; 402 n17; 403 x..30; 410-417 n13; 420 x..20; 421 n3 x..9; 422 n3; 423 n..15; 424 n3; 425 n..15; 426 n3;
427 x..3; 4300-4301 x..35; 4302-4306 x..70; 4307 x2; 4308 x..30; 4309 n20; 4310-4311 x..35; 4312-4316 x..70; 4317 x2;
4318 x..20; 4319 x..30; 4320 x..35; 4321-4323 n1; 4324-4325 n10; 4326 n6; 4330-4333 n6 x..1; 7001 n13; 7002 x..30;
7003 n10; 7004 n..4; 7005 x..12; 7006 n6; 7007 n..12; 7008 x..3; 7009 x..10; 7010 x..2; 7011 n..10; 7020-7022 x..20;
7023 x..30; 7030-7039 n3 x..27; 7040 x4; 7041 x..4; 710-717 x..20; 7230-7239 x2 x..28; 7240 x..20; 7241 n2; 7242 x..25;
7250 n8; 7251 n12; 7252 n1; 7253-7254 x..40; 7255 x..10; 7256 x..90; 7257 x..70; 7258 x3; 7259 x..40; 8001 n14;
8002 x..20; 8003 n14 x..16; 8004 x..30; 8005 n6; 8006 n18; 8007 x..34; 8008 n8 n..4; 8009 x..50; 8010 x..30; 8011 n..12;
8012 x..20; 8013 x..25; 8014 x..25; 8017-8018 n18; 8019 n..10; 8020 x..25; 8026 n18; 8030 x..90; 8040 x..90;
8041 x..90; 8042 x..90; 8043 x..90; 8110 x..70; 8111 n4; 8112 x..70; 8200 x..70; 90 x..30; 91-99 x..90`;

/** First two digits of the elements whose length is set for good, so that no separator follows them (section 7.8.5). */
const SET_LENGTH = /^(0[0-4]|1[1-9]|20|3[1-6]|41)/;

/** Digits of an identifier by its first two (section 7.8.1, figure of identifier lengths). */
function digitsOf(two: string): number | undefined {
  if (/^(0[0-4]|1[0-9]|2[0-2]|30|37|9[0-9])$/.test(two)) return 2;
  if (/^(2[3-5]|4[0-2]|71)$/.test(two)) return 3;
  return /^(3[1-6]|39|43|7[02]|8[0-2])$/.test(two) ? 4 : undefined;
}

const rules = new Map<string, ElementRule>();
for (const entry of forms.split(';')) {
  const [range, ...parts] = entry.trim().split(/\s+/);
  const [from, to = from] = range!.split('-');
  let most = 0;
  let fixed = true;
  let form = '';
  for (const part of parts) {
    const [, kind, open, length] = /^([nx])(\.\.)?(\d+)$/.exec(part)!;
    most += Number(length);
    fixed &&= !open;
    // The last part that may be shorter may be left out where another one stands before it.
    form += `${kind === 'n' ? '\\d' : '[^\\u001d]'}{${open ? (form ? 0 : 1) : length},${length}}`;
  }
  for (let ai = Number(from); ai <= Number(to); ai++) {
    const name = String(ai).padStart(from!.length, '0');
    rules.set(name, { form: new RegExp(`^${form}$`), most, fixed, separated: !SET_LENGTH.test(name) });
  }
}

/** Longest value of an identifier that is too new to be known here. */
const LONGEST = 90;

/** The identifier with which data begins; undefined where it begins with none. */
export function identifierAt(data: string): string | undefined {
  const digits = digitsOf(data.slice(0, 2));
  const ai = data.slice(0, digits);
  return digits !== undefined && ai.length === digits && /^\d+$/.test(ai) ? ai : undefined;
}

/** How an identifier's value is written; one that is not known is text that a separator ends. */
export function ruleOf(ai: string): ElementRule {
  return (
    rules.get(ai) ?? { form: new RegExp(`^[^\\u001d]{1,${LONGEST}}$`), most: LONGEST, fixed: false, separated: true }
  );
}
