/** Late floors: what clubs, back rooms and rehearsal sheds play. */
export const HOUSE = `
style House
place Lantern loft
tempo 122 116-128
swing 54 1/16
keeper hat.open
late clap 3, snare 3
hands 1
tags club warm

groove main
kick        9...|9...|9...|9...
clap        ....|9...|....|9...
hat.closed  .3.5|.3.5|.3.5|.3.5
hat.open    ..8.|..8.|..8.|..8.

groove ghost notes < main
snare       ...2|...1|.2..|...2

groove on the ride < main
drop hat.closed
move ride

groove open hats < main
hat.closed  5...|5...|5...|5...
hat.open    ..A.|..8.|..A.|..8.

groove half-time < main
kick        9...|....|9...|...5
clap        ....|....|9...|....

groove busier < main
kick        9...|9...|9...|9.5.
hat.closed  63.5|63.5|63.5|63.5
snare       ....|..3.|....|...4

groove sparser < main
hat.closed  ....|....|....|....|....|....|....|...4
clap        ....|9...|....|9...|....|9...|....|9...

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|9...|9...|....
clap        ....|9...|....|9.99
hat.open    ..8.|..8.|..8.|....
hat.closed  .3.5|.3.5|....|....

groove fill 2 < main
kick        9...|9...|....|....
clap        ....|9...|....|....
snare       ....|....|4.56|7889
hat.open    ..8.|..8.|....|....
hat.closed  .3.5|.3.5|....|....

groove ending < main
kick        9...|9...|A...|....
clap        ....|9...|....|....
hat.closed  .3.5|....|....|....
hat.open    ..8.|..8.|....|....
crash       ....|....|A...|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const TECHNO = `
style Techno
place Cold store
tempo 132 126-142
keeper hat.closed
hands 0.6
tags driving dark machine

groove main
kick        A...|9...|9...|9...
hat.closed  ..7.|..7.|..7.|..7.
ride        5.5.|5.5.|5.5.|5.5.
snare.sideStick ....|....|...6|....|....|...5|....|.6.6
clap        ....|....|....|....|....|8...|....|....

groove ghost notes < main
tom.low     ...3|.2..|...3|.2..

groove on the ride < main
hat.closed  5353|5353|5353|5353
drop ride
move ride

groove open hats < main
hat.open    ..8.|..8.|..8.|..8.
drop hat.closed

groove half-time < main
kick        A...|....|9...|....
clap        ....|....|9...|....
drop snare.sideStick

groove busier < main
kick        A...|9...|9..5|9...
hat.closed  5.75|5.75|5.75|5.75
drop ride

groove sparser < main
drop ride
drop snare.sideStick

groove without kick < main
drop kick

groove fill 1 < main
kick        A...|9...|....|....
clap        ....|....|..7.|8.89
hat.closed  ..7.|..7.|....|....
ride        5.5.|5.5.|5.5.|5.5.
drop snare.sideStick

groove fill 2 < main
kick        A...|....|....|....
snare       3344|4455|5667|7889
drop clap
drop ride
drop snare.sideStick
hat.closed  ....|....|....|....

groove ending < main
kick        A...|9...|A...|....
hat.closed  ..7.|..7.|....|....
crash       ....|....|A...|....
drop clap
drop ride
drop snare.sideStick

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const TRAP = `
style Trap
place Neon awning
tempo 140 128-152
keeper hat.closed
late snare 4
hands 1
tags rolls dark half-speed

groove main
kick        9...|....|..7.|....|...8|..8.|....|....
snare       ....|....|9...|....|....|....|9...|....
hat.closed  6.5.|6.5.|6.5.|6.r.|6.5.|6.55|6.5.|665r

groove ghost notes < main
snare       ....|...2|9...|...2|....|..2.|9..2|..3.

groove on the ride < main
hat.closed  6.5.|6.5.|6.5.|6.5.
move ride

groove open hats < main
hat.closed  6.5.|6.5.|6.5.|6...|6.5.|6.55|6.5.|6...
hat.open    ....|....|....|..7.|....|....|....|..7.

groove half-time < main
kick        9...|....|....|....|....|....|....|..7.
snare       ....|....|....|....|9...|....|....|....

groove busier < main
kick        9..6|....|..7.|.7..|...8|..8.|..6.|.7..
hat.closed  6555|6555|65r5|655r|6555|65r5|6555|rr6r

groove sparser < main
kick        9...|....|....|....|...8|....|....|....
hat.closed  6...|6...|6...|6...|6...|6...|6...|6.5.

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|....|....|....
snare       ....|....|9..7|.7.8
hat.closed  6.5.|6.r.|....|....

groove fill 2 < main
kick        9...|....|....|..8.
snare       ....|....|4455|6r8r
hat.closed  6.5.|rrrr|....|....

groove ending < main
kick        9...|....|A...|....
snare       ....|....|....|....
hat.closed  6.5.|665r|....|....
crash       ....|....|A...|....

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const DRILL = `
style Drill
place Back-alley steam
tempo 142 136-148
keeper hat.closed
late snare 3
hands 1
tags sliding dark threes

groove main
kick        9...|....|...7|....|..8.|....|7...|....
snare       ....|....|9...|....|....|....|...9|....
hat.closed  6..5|..6.|6..5|..6.|6..5|..6.|6..5|.r6.

groove ghost notes < main
snare       ....|.2..|9...|.2..|...2|....|.2.9|...2

groove on the ride < main
hat.closed  6..5|..6.|6..5|..6.
move ride

groove open hats < main
hat.closed  6..5|....|6..5|..6.|6..5|....|6..5|....
hat.open    ....|..7.|....|....|....|..7.|....|..7.

groove half-time < main
kick        9...|....|....|....|..8.|....|....|....
snare       ....|....|....|....|9...|....|....|....

groove busier < main
kick        9..6|....|.6.7|....|..8.|.6..|7..6|....
hat.closed  65.5|5.65|65.5|5.65|65.5|5.65|65.5|rr6r

groove sparser < main
kick        9...|....|....|....|..8.|....|....|....
hat.closed  6..5|..6.|....|....|6..5|..6.|....|....

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|....|....|....
snare       ....|....|9..8|..8.
hat.closed  6..5|..6.|....|....

groove fill 2 < main
kick        9...|....|....|..8.
snare       ....|....|6..7|.78A
hat.closed  6..5|rr6r|....|....

groove ending < main
kick        9...|....|A...|....
snare       ....|....|....|....
hat.closed  6..5|..6.|....|....
crash       ....|....|A...|....

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const DISCO = `
style Disco
place Glass-ball ferry
tempo 118 110-128
keeper hat.closed
late snare 2
hands 3
tags dance bright off-beats

groove main
kick        9...|9...|9...|9...
snare       ....|9...|....|9...
hat.closed  65..|65..|65..|65..
hat.open    ..8.|..8.|..8.|..8.

groove ghost notes < main
snare       ...2|9..1|.2..|9..2

groove on the ride < main
drop hat.open
hat.closed  6.8.|6.8.|6.8.|6.8.
move ride

groove open hats < main
hat.closed  6...|6...|6...|6...
hat.open    ..A.|..A.|..A.|..A.

groove half-time < main
kick        9...|....|9...|....
snare       ....|....|9...|....

groove busier < main
kick        9...|9...|9...|9..6
hat.closed  65.5|65.5|65.5|65.5

groove sparser < main
drop hat.open
hat.closed  6...|6...|6...|6...

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|9...|9...|9...
snare       ....|9...|..78|8.89
hat.closed  65..|65..|....|....
hat.open    ..8.|..8.|....|....

groove fill 2 < main
kick        9...|9...|9...|9...
snare       ....|9...|7788|....
tom.high    ....|....|....|88..
tom.low     ....|....|....|..9A
hat.closed  65..|65..|....|....
hat.open    ..8.|..8.|....|....

groove ending < main
kick        9...|9...|A...|....
snare       ....|9...|....|....
hat.closed  65..|6...|....|....
hat.open    ..8.|....|....|....
crash       ....|....|A...|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const METAL = `
style Metal
place Boiler shed
tempo 168 140-210
keeper hat.closed
hands 2
tags double-bass loud fast

groove main
kick        9.99|..99|9.99|..99
snare       ....|9...|....|9...
hat.closed  8...|7...|8...|7...

groove ghost notes < main
snare       ...2|9..2|.2..|9.2.

groove on the ride < main
move ride

groove open hats < main
hat.open    8...|8...|8...|8...
drop hat.closed

groove half-time < main
kick        9.99|9.99|9.99|9.99
snare       ....|....|A...|....
hat.closed  8...|7...|8...|7...

# Hands and feet in turn, as fast as they go.
groove busier < main
kick        9.9.|9.9.|9.9.|9.9.
snare       .8.8|.8.8|.8.8|.8.8
hat.closed  8.8.|8.8.|8.8.|8.8.

groove sparser < main
kick        9...|..9.|9...|..9.
hat.closed  8...|8...|8...|8...

groove without kick < main
drop kick

groove fill 1 < main
kick        9.99|..99|9999|9999
snare       ....|9...|9.9.|9.99
hat.closed  8...|7...|....|....

groove fill 2 < main
kick        9999|9999|9999|9999
snare       8888|....|....|....
tom.high    ....|8888|....|....
tom.mid     ....|....|8888|....
tom.floor   ....|....|....|999A
hat.closed  ....|....|....|....

groove ending < main
kick        9.99|9.99|A...|....
snare       ....|9...|....|....
hat.closed  8...|7...|....|....
crash       ....|....|A...|....
china       ....|....|A...|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;
