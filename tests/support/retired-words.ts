// One table for every test that reads words: of the source, of the terminal, of the views as the browser shows them.

/** Retired words; what an installer says instead. */
export const RETIRED: readonly (readonly [RegExp, string])[] = [
  [/\bsecrets?\b/i, 'password'],
  [/\bsigns?\b(?! by|ature)/i, 'character, LED pattern'],
  [/\blamps?\b/i, 'LED'],
  [/sign of life/i, 'keep-alive'],
  [/\bgood-?byes?\b/i, 'TEARDOWN'],
  [/\bdraws?\b|\bdrawn by\b|\bdrawing on\b/i, 'pull, goes to'],
  [/\bthe Round\b|\brounds\b/, 'Cameras, preset tour'],
  [/\bheads?\b/i, 'PTZ'],
  [/\bsteer(s|ed|ing)?\b/i, 'PTZ controls'],
  [/\bin hand\b/i, 'PTZ controls'],
  [/\bpassport\b/i, 'ONVIF device report'],
  [/\bgroups? of pictures\b|\bopen groups?\b/i, 'GOP'],
  [/key frames? every/i, 'key-frame interval'],
  [/\bunevenly\b/i, 'jitter'],
  [/\btape\b/i, 'connection log'],
  [/\bpatience\b/i, 'timeout'],
  [/\bvouch(es)? for itself\b/i, 'self-signed'],
  [/hardware address/i, 'MAC address'],
  [/\bhand(s|ed)? out\b/i, 'DHCP range'],
  [/\bpool\b/i, 'DHCP range'],
  [/left to chance/i, 'DHCP without a reservation'],
  [/\blook(s|ed|ing)? through\b/i, 'scan'],
  [/\btidy\b/i, 'consecutive addresses'],
  [/\blook(s|ed|ing)? in from\b/i, 'remote access'],
  [/\bleads? in\b/i, 'port forward'],
  [/opens? by itself/i, 'UPnP port mapping'],
  [/\btunnels?\b(?! that| closes)/i, 'VPN, RTSP over HTTP'],
  [/\bpassages?\b/i, 'firewall rule'],
  [/\bimages?\b/i, 'firmware file'],
  [/side branch|community image/i, 'maker’s RTSP firmware, community firmware'],
  [/\bdigest of\b|\bthe digest\b|\bits digest\b/i, 'checksum (SHA-256)'],
  [/\bhandsets?\b/i, 'old phone'],
  [/\bseats?\b/i, 'licences, channels'],
  [/\bschools?\b/i, 'approach'],
  [/bought again/i, 'replacement'],
  [/small streams?/i, 'sub stream'],
  [/movement is found/i, 'motion detection'],
  [/sees across|seen from, m/i, 'angle of view, nearest point'],
  [/\basleep\b/i, 'standby'],
  [/\bfed by\b|\bwhat feeds\b/i, 'power source'],
  [/too little arrives|does not carry it|no air left/i, 'voltage drop, solar yield, channel overloaded'],
  [/stands \d+ V/i, 'tolerates'],
  [/\btake (it|this|them)? ?back\b|\btaken back\b|\bleave it as\b/i, 'Undo, Cancel'],
  [/\bblanks?\b/i, 'space'],
  [/\bstills\b/i, 'snapshots'],
  [/\bits card\b|\bthe cards?\b(?! pulled)/i, 'its model card, the SD card'],
];

/** Where such a word is the standard term, or an everyday one: each with its reason. */
export const ALLOWED: readonly { readonly text: RegExp; readonly why: string }[] = [
  { text: /^(\.\.?\/|\/|#|data:|image\/|text\/|<|\.png)/, why: 'a path, a type or a drawing, which nobody reads' },
  { text: /^[a-z]+([-.: ]?\$|[-.:]\{|-)/, why: 'an id that is put together' },
  { text: /a sign at the entrance/, why: 'a sign on a wall' },
  { text: /first sign of a link/, why: 'a symptom' },
  { text: /Leave a lamp on/, why: 'a lamp in a room' },
  { text: /pan-tilt head|top of a head|without a head/, why: 'the hardware, and the head of a person' },
  { text: /Tape two marks/, why: 'adhesive tape' },
  { text: /converter draws more current/, why: 'current is drawn' },
  {
    text: /Draw(n|s)? |canvas to draw|which cable to draw|to draw its picture|as drawn/i,
    why: 'a line that is drawn on a plan',
  },
  {
    text: /it opened a tunnel|HTTP tunnel|tunnelled|--tunnel/,
    why: 'RTSP over HTTP is a tunnel (its protocol’s word)',
  },
  { text: /its card was removed/, why: 'the card of a computer, whatever it is' },
  { text: /against the card of its model/, why: 'a model card by another order of words' },
];

/** What a text says that the field does not say, each with the word for it. */
export const retiredIn = (text: string): readonly string[] =>
  ALLOWED.some((one) => one.text.test(text))
    ? []
    : RETIRED.filter(([word]) => word.test(text)).map(([, instead]) => `${text.slice(0, 120)} → ${instead}`);
