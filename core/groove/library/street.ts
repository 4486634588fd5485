/** Head-nods and half-times: what is played slowly and leans back. */
export const BOOM_BAP = `
style Boom-bap
place Noodle queue
tempo 90 78-98
swing 57 1/16
keeper hat.closed
late snare 11, hat.closed 4, hat.open 4, kick -2
hands 5
tags dusty head-nod

groove main
kick        9...|...3|.87.|....|9...|...2|.8..|..6.
snare       ....|9...|....|9...|....|9...|....|9..2
hat.closed  7.4.|6.4.|7.4.|6.45|7.4.|6.4.|7.44|6.4.

groove ghost notes < main
snare       ...1|9..2|.2..|9..1|...1|9..2|.2.1|9.12

groove on the ride < main
move ride

groove open hats < main
hat.closed  7.4.|6.4.|7.4.|6...|7.4.|6.4.|7.4.|6...
hat.open    ....|....|....|..7.|....|....|....|..6.

groove half-time < main
kick        9...|..3.|....|..7.|9..3|....|.7..|..6.
snare       ....|....|9...|...2|....|....|9...|....

groove busier < main
kick        9..7|...3|.87.|..5.|9..6|...2|.8.7|..6.
snare       ..1.|9.12|.2..|9..2|..1.|9.12|.2.1|9.23
hat.closed  7545|6345|7545|6345

groove sparser < main
kick        9...|....|..8.|....
snare       ....|9...|....|9...
hat.closed  7...|6...|7...|6...

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|....|..8.|....
snare       ....|9..4|..6.|7.89
hat.closed  7.4.|6...|....|....
tom.high    ....|....|7...|....
tom.floor   ....|....|....|.6..

groove fill 2 < main
kick        9...|...7|....|8...
snare       ....|9.45|6...|..d.
hat.closed  7.4.|....|....|....
tom.mid     ....|....|..7.|....
tom.floor   ....|....|...8|....

groove ending < main
kick        9...|...7|8...|....
snare       ....|9.3.|7...|....
hat.closed  7.4.|6.4.|....|....
crash       ....|....|9...|....

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const HALF_TIME = `
style Half-time
place Wet neon
tempo 140 126-156
keeper hat.closed
late snare 7, clap 9
hands 2
tags dark wide

groove main
kick        9...|....|....|..6.|....|..8.|....|....
snare       ....|....|9...|....|....|....|9...|....
hat.closed  8.5.|7.5.|8.5.|7.56|8.5.|7.5.|8.56|7.r.

groove ghost notes < main
snare       ....|..1.|9..1|....|...1|..2.|9...|.1.2

groove on the ride < main
hat.closed  8.5.|7.5.|8.5.|7.5.
move ride

groove open hats < main
hat.closed  8.5.|7...|8.5.|7.56|8.5.|7.5.|8...|7.r.
hat.open    ....|..7.|....|....|....|....|..7.|....

groove half-time < main
kick        9...|....|....|....|....|....|....|..7.
snare       ....|....|....|....|9...|....|....|....

groove busier < main
kick        9..5|....|..7.|..6.|..5.|..8.|....|.65.
snare       ....|....|9...|...2|....|....|9...|..3.
hat.closed  8556|7.5r|8.56|7556|8556|7.r.|8.56|7rr.

groove sparser < main
kick        9...|....|....|....|....|..7.|....|....
hat.closed  8...|7...|8...|7...

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|....|....|....
snare       ....|....|9..5|6.78
hat.closed  8.5.|7.5.|....|....
tom.low     ....|....|..7.|.8..

groove fill 2 < main
kick        9...|...6|..8.|....
snare       ....|..4.|5.6.|78.9
hat.closed  8.5.|7...|....|....
hat.open    ....|....|....|..7.

groove ending < main
kick        9...|....|9...|....
snare       ....|....|9...|....
hat.closed  8.5.|7.56|....|....
crash       ....|....|9...|....

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const SLOW_JAM = `
style Slow jam
place Lantern steam
tempo 68 60-76
swing 60 1/16
keeper hat.closed
late snare.sideStick 16, snare 16, hat.closed 6, hat.open 6
hands 6
tags warm late

groove main
kick             9...|..6.|.5.7|....
snare.sideStick  ....|8...|....|8..3
hat.closed       6353|6353|6353|635.
hat.open         ....|....|....|...4

groove ghost notes < main
snare            ..1.|..12|.1..|..1.

groove on the ride < main
move ride

groove open hats < main
hat.closed       63.3|6353|63.3|635.
hat.open         ..5.|....|..5.|...4

groove half-time < main
kick             9...|....|....|..6.
snare.sideStick  ....|....|8...|....
hat.closed       6.5.|6.5.|6.5.|6.5.
drop hat.open

groove busier < main
kick             9..4|..6.|.5.7|..4.
snare            ..1.|..2.|.1.1|..2.
hat.closed       6454|6454|645r|645.

groove sparser < main
kick             9...|....|.5.7|....
hat.closed       6.5.|6.5.|6.5.|6.5.
drop hat.open

groove without kick < main
drop kick

groove fill 1 < main
kick             9...|..6.|....|....
snare.sideStick  ....|8...|....|....
snare            ....|....|..45|6.78
hat.closed       6353|6353|6...|....
drop hat.open

groove fill 2 < main
kick             9...|..6.|.5..|....
snare.sideStick  ....|8...|....|....
hat.closed       6353|63..|....|....
tom.high         ....|...6|7...|....
tom.mid          ....|....|.67.|....
tom.floor        ....|....|....|7.8.
drop hat.open

groove ending < main
kick             9...|..6.|8...|....
snare.sideStick  ....|8...|....|....
hat.closed       6353|63..|....|....
ride.bell        ....|....|7...|....
drop hat.open

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const FUNK = `
style Funk
place Spice scoop
tempo 102 92-114
swing 53 1/16
keeper hat.closed
late snare 3, kick -3
hands 4
tags sixteenths tight

groove main
kick        9.6.|....|.65.|....|9.6.|...5|..8.|.5..
snare       ....|9..2|.2..|9..2|....|9..2|.2.2|9...
hat.closed  8565|7565|8565|7565|8565|7565|8565|75.5
hat.open    ....|....|....|....|....|....|....|..6.

groove ghost notes < main
snare       .1.2|9.12|12.1|9.21|.1.2|9.12|12.2|9.12

groove on the ride < main
hat.closed  8.6.|7.6.|8.6.|7.6.
hat.open    ....|....|....|....|....|....|....|..6.
move ride

groove open hats < main
hat.closed  856.|7565|856.|7565
hat.open    ...6|....|...6|....

groove half-time < main
kick        9.6.|...5|....|.56.
snare       ...2|....|9..2|....
hat.closed  8565|7565
drop hat.open

groove busier < main
kick        9.65|...5|.65.|..4.|9.6.|4..5|..8.|.5.4
snare       .1.2|9.12|12..|9.22|.1.2|9.1d|.2.2|9.23
hat.open    ....|....|....|....|....|....|....|..6.

groove sparser < main
kick        9...|....|..7.|....
snare       ....|9...|....|9...
hat.closed  8.6.|7.6.|8.6.|7.6.
drop hat.open

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|....|.6..|8...
snare       ....|9.56|5.67|..89
hat.closed  85..|7...|....|....
tom.mid     ....|....|.7..|....
drop hat.open

groove fill 2 < main
kick        9.6.|....|9...|9..9
snare       ..56|9...|.678|.67.
hat.closed  8...|7565|....|....
hat.open    ....|....|....|....
drop hat.open

groove ending < main
kick        9.6.|...8|.8..|....
snare       ....|9..7|.7..|....
hat.closed  8565|75..|....|....
crash       ....|....|.9..|....
drop hat.open

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;
