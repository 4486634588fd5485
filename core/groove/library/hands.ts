/** Single instruments to lay over: each a family of its own. */
const piece = (style: string, tempo: string, says: string, grooves: string): string =>
  `style ${style}\nplace ${style}\ntempo ${tempo}\nhands 5\ntags percussion layer\n${says}\n${grooves}`;

export const HAND_GROOVES = [
  piece(
    'Shaker',
    '104 70-140',
    'keeper shaker\nlate shaker -2',
    `
groove even sixteenths
shaker 7354|6354|7354|6354
groove pushed off-beats
shaker 4373|4373|4373|4374
groove swung sixteenths
swing 60 1/16
shaker 7353|6353|7353|6354
groove eighths
shaker 7.5.|6.5.|7.5.|6.5.
groove triplets
grid 1/8T
shaker 735|635|735|634
groove in seven
meter 7/8
shaker 7354|7354|7354|63`,
  ),
  piece(
    'Tambourine',
    '110 80-140',
    'keeper tambourine\nlate tambourine 3',
    `
groove backbeat
tambourine ....|8...|....|8...
groove off-beats
tambourine ..7.|..7.|..7.|..7.
groove gallop
tambourine 7.46|7.46|7.46|7.46
groove shaken sixteenths
tambourine 4353|8353|4353|8354
groove six-eight
meter 6/8
grid 1/8
tambourine 735|835`,
  ),
  piece(
    'Congas',
    '108 86-132',
    'keeper conga.mute\nlate conga.open 3, conga.low 3',
    `
# Heel and toe on the eighths, the slap on 2, open tones on 4 and its off-beat.
groove tumbao
conga.mute 4.3.|9.3.|4.3.|3...
conga.open ....|....|....|8.9.
groove tumbao with low drum
conga.mute 4.3.|9.3.|4.3.|3...|4.3.|9...|..3.|3...
conga.open ....|....|....|8.9.|....|....|....|8.9.
conga.low  ....|....|....|....|....|..8.|8...|....
groove slow roll
conga.mute 5..3|5..3|5..3|5..3
conga.open ..6.|..6.|..6.|..67
groove six-eight
meter 6/8
grid 1/8
conga.mute 5.3|5..|5.3|5..
conga.open ...|.66|...|.67
conga.low  .5.|...|.5.|...`,
  ),
  piece(
    'Bongos',
    '118 92-140',
    'keeper bongo.high\nlate bongo.low 2',
    `
groove hammer
bongo.high 7.4.|6.4.|7.4.|....
bongo.low  ....|....|....|6.5.
groove hammer in sixteenths
bongo.high 7344|6344|7344|6...
bongo.low  ....|....|....|.655
groove answers
bongo.high 7..5|....|7..5|....
bongo.low  ....|6..5|....|6.55`,
  ),
  piece(
    'Cowbell',
    '112 90-136',
    'keeper cowbell\nlate cowbell -2',
    `
groove quarters
cowbell 8...|7...|8...|7...
groove mambo bell
cowbell 8.7.|..7.|8.7.|..7.
groove cascara
cowbell 8.6.|86.6|8.6.|8.66
groove off-beat bell
cowbell ..7.|..7.|..7.|..77`,
  ),
  piece(
    'Claves',
    '104 84-132',
    'keeper claves\nlate claves 1',
    `
groove three-two
claves 8..8|..8.|..8.|8...
groove two-three
claves ..8.|8...|8..8|..8.
groove rumba three-two
claves 8..8|...8|..8.|8...
groove six-eight
meter 6/8
grid 1/8
claves 8.8|.8.|8.8|..8`,
  ),
  piece(
    'Agogo',
    '112 94-132',
    'keeper agogo.high\nlate agogo.high -2',
    `
groove street bell
agogo.high 7.7.|....|.7.7|....
agogo.low  ....|7.7.|....|7.7.
groove rocking
agogo.high 7..7|..7.|....|7...
agogo.low  ....|....|6..6|..6.`,
  ),
  piece(
    'Woodblocks',
    '116 90-140',
    'keeper woodblock.high',
    `
groove ticking
woodblock.high 7...|7...|7...|7...
woodblock.low  ..5.|..5.|..5.|..55
groove dripping tarp
woodblock.high 6..5|....|..6.|..5.
woodblock.low  ....|.6..|5...|6...`,
  ),
  piece(
    'Triangle',
    '112 88-136',
    'keeper triangle.mute\nlate triangle.open 2',
    `
groove open and shut
triangle.mute 5.4.|5.4.|5.4.|5.4.
triangle.open ...6|...6|...6|...6
groove north-east
triangle.mute 54..|54..|54..|54..
triangle.open ..7.|..7.|..7.|..7.`,
  ),
  piece(
    'Guiro',
    '106 84-126',
    'keeper guiro.short',
    `
groove long and two short
guiro.long  7...|....|7...|....
guiro.short ....|5.5.|....|5.5.
groove even
guiro.long  6...|6...|6...|6...
guiro.short ..55|..55|..55|..55`,
  ),
  piece(
    'Cabasa',
    '98 76-120',
    'keeper cabasa\nlate cabasa 3',
    `
groove loose sixteenths
swing 55 1/16
cabasa 6345|6345|6345|6345
groove dragging eighths
cabasa 7.4.|7.4.|7.4.|7.45`,
  ),
  piece(
    'Timbales',
    '112 94-130',
    'keeper timbale.high\nlate timbale.high -2',
    `
groove shell pattern
timbale.high 7.7.|77.7|.7.7|7.77
groove answers
timbale.high ...7|..7.|....|7...
timbale.low  ....|....|..67|..7.`,
  ),
];
