/** Dance floors: machines in time, hands over them. */
export const FOUR_FLOOR = `
style Four-on-the-floor
place Ferry deck
tempo 124 116-132
keeper hat.closed
late clap 4, snare 4
hands 1
tags dance steady

groove main
kick        9...|9...|9...|9...
clap        ....|8...|....|8...
hat.closed  .3..|.3..|.3..|.3.4
hat.open    ..7.|..7.|..7.|..7.

groove ghost notes < main
snare       ...2|..1.|.2.1|..12

groove on the ride < main
hat.closed  5.6.|5.6.|5.6.|5.6.
drop hat.open
move ride

groove open hats < main
hat.closed  5...|5...|5...|5...
hat.open    ..8.|..8.|..8.|..85

groove half-time < main
kick        9...|....|9...|....
clap        ....|....|8...|....
drop hat.open
hat.closed  6.5.|6.5.|6.5.|6.5.

groove busier < main
kick        9...|9...|9...|9..5
hat.closed  63.4|63.4|63.4|63.5
snare       ....|...2|.3..|..3.

groove sparser < main
hat.closed  ....|..5.|....|..5.
drop hat.open

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|9...|9...|....
clap        ....|8...|....|8.89
hat.closed  .3..|.3..|....|....
hat.open    ..7.|..7.|..7.|....

groove fill 2 < main
kick        9...|9...|....|....
clap        ....|8...|....|....
snare       ....|....|4545|6789
hat.open    ..7.|..7.|....|....
hat.closed  .3..|.3..|....|....

groove ending < main
kick        9...|9...|9...|....
clap        ....|8...|9...|....
hat.closed  .3..|.3..|....|....
hat.open    ..7.|..7.|....|....
crash       ....|....|9...|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const TWO_STEP = `
style Two-step
place Wet cobbles
tempo 132 126-138
swing 61 1/16
keeper hat.closed
late snare 5, clap 5, hat.closed 2, hat.open 2
hands 2
tags shuffled skippy

groove main
kick        9...|....|..8.|....|9...|..5.|..8.|.5..
snare       ....|9...|....|9...|....|9..3|....|9...
hat.closed  ..75|..7.|.575|..74|..75|..7.|.575|..7.

groove ghost notes < main
snare       ...1|9..2|.1..|9.1.|...1|9..3|.2.1|9..2

groove on the ride < main
move ride

groove open hats < main
hat.closed  ...5|..7.|.5.5|..74|...5|..7.|.5.5|....
hat.open    ..7.|....|..7.|....|..7.|....|..7.|..6.

groove half-time < main
kick        9...|....|....|..6.|....|..5.|....|....
snare       ....|....|9...|....|....|....|9..2|....

groove busier < main
kick        9..5|....|..8.|.5..|9...|..5.|.58.|.5..
snare       ...2|9..2|.2..|9..3|...2|9..3|.2.3|9.23
hat.closed  5.75|5.74|5575|5.74|5.75|5.74|5575|5r74

groove sparser < main
kick        9...|....|..8.|....
snare       ....|9...|....|9...
hat.closed  ..7.|..7.|..7.|..7.

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|....|..8.|....
snare       ....|9..5|.6.7|.8.9
hat.closed  ..75|..7.|....|....

groove fill 2 < main
kick        9...|..7.|.7..|....
snare       ....|9...|..56|..r9
hat.closed  ..75|....|....|....
snare.sideStick  ....|...6|6...|6...

groove ending < main
kick        9...|....|8...|....
snare       ....|9..4|8...|....
hat.closed  ..75|..7.|....|....
crash       ....|....|8...|....

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const BROKEN = `
style Breakbeat
place Runaway cart
tempo 168 156-178
swing 52 1/16
keeper ride
late snare 2, ride -2
hands 3
tags fast chopped

groove main
kick        9.9.|....|..9.|....|9.9.|....|..9.|....
snare       ....|9..4|.4..|9..3|....|9..4|.4..|..9.
ride        7.5.|7.5.|7.5.|7.5.

groove ghost notes < main
snare       .1.2|9..4|.42.|9.23|.1.2|9..4|.421|..92

groove on the hat < main
move hat.closed

groove open hats < main
ride        7.5.|7...|7.5.|7.5.|7.5.|7...|7.5.|7...
hat.open    ....|..6.|....|....|....|..6.|....|..6.

groove half-time < main
kick        9.9.|....|....|..6.|....|..9.|....|....
snare       ....|..2.|9..3|....|..2.|....|9..4|.3..

groove busier < main
kick        9.9.|..5.|..99|....|9.9.|..5.|.59.|..6.
snare       .2.2|9.24|.4.2|9.33|.2.2|9.24|.4.3|.296
ride        7.56|7.56

groove sparser < main
kick        9...|....|..9.|....
snare       ....|9...|....|9...
ride        7...|7...|7...|7...

groove without kick < main
drop kick

groove fill 1 < main
kick        9.9.|....|....|....
snare       ....|9.56|7.67|8.89
ride        7.5.|7...|....|....

groove fill 2 < main
kick        9...|..9.|..9.|9...
snare       ..9.|.9.4|.4.5|..67
ride        7...|7...|7...|....

groove ending < main
kick        9.9.|....|9...|....
snare       ....|9..7|9...|....
ride        7.5.|7.5.|....|....
crash       ....|....|9...|....

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const DEMBOW = `
style Dembow
place Crate bounce
tempo 96 88-104
keeper hat.closed
late snare 2, snare.sideStick 3
hands 2
tags island bounce

groove main
kick        9...|8...|9...|8...
snare       ...8|..8.|...8|..8.
hat.closed  6.4.|6.4.|6.4.|6.4.

groove ghost notes < main
snare       ..28|.28.|..28|.282

groove on the ride < main
move ride

groove open hats < main
hat.closed  6...|6.4.|6...|6.4.
hat.open    ..6.|....|..6.|....

groove half-time < main
kick        9...|....|8...|....
snare       ....|..8.|....|..8.
hat.closed  6...|4...|6...|4...

groove busier < main
kick        9...|8..4|9...|8.5.
snare       ..38|.38.|..38|.383
hat.closed  6445|6445|6445|644r

groove sparser < main
kick        9...|....|9...|....
hat.closed  6...|6...|6...|6...

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|8...|9...|....
snare       ...8|..8.|....|6789
hat.closed  6.4.|6.4.|....|....
timbale.high  ....|....|..67|....

groove fill 2 < main
kick        9...|8...|....|9...
snare       ...8|..8.|....|....
timbale.high  ....|....|8.6.|..6.
timbale.low   ....|....|.7.7|.8..
hat.closed  6.4.|6.4.|....|....

groove ending < main
kick        9...|8...|9...|....
snare       ...8|..8.|8...|....
hat.closed  6.4.|6.4.|....|....
crash       ....|....|8...|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;
