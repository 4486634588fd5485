/** Bars that are not four. */
export const FIVE = `
style Five-four
place Five stalls
tempo 138 116-160
meter 5/4
swing 56 1/8
keeper ride
late snare 4, ride -2
hands 5
tags odd long-short

groove main
kick        9...|....|..7.|....|....
snare       ....|..5.|....|8...|..8.
ride        7...|7.5.|7.5.|7...|7.5.
hat.pedal   ....|6...|....|6...|....

groove ghost notes < main
snare       ..1.|..5.|1.2.|8.1.|..8.

groove on the hat < main
drop hat.pedal
move hat.closed

groove open hats < main
ride        7...|7.5.|7.5.|7...|7...
hat.open    ....|....|....|....|..6.
drop hat.pedal

groove half-time < main
kick        9...|....|....|....|....|....|7...|....|....|....
snare       ....|....|....|....|....|8...|....|....|....|5...
ride        7...|5...|7...|5...|5...

groove busier < main
kick        9...|..5.|..7.|....|5...
snare       ..2.|..5.|2.2.|8.2.|5.8.
ride        7.5.|7.5.|7.5.|7.5.|7.5.

groove sparser < main
snare       ....|....|....|8...|....
ride        7...|7...|7...|7...|7...

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|....|..7.|....|8...
snare       ....|..5.|5.6.|....|....
tom.high    ....|....|....|7.7.|....
tom.floor   ....|....|....|....|7.8.
ride        7...|7...|....|....|....
drop hat.pedal

groove fill 2 < main
kick        9...|....|....|....|9...
snare       ....|..5.|6.6.|7.7.|8.9.
ride        7...|7...|....|....|....

groove ending < main
kick        9...|....|..8.|....|....
snare       ....|..5.|..8.|....|....
ride        7...|7.5.|....|....|....
crash       ....|....|..8.|....|....
drop hat.pedal

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const SEVEN = `
style Seven-eight
place Seven gulls
tempo 122 104-140
meter 7/8
keeper hat.closed
late snare 3
hands 4
tags odd two-two-three

groove main
kick        9...|....|9..7|..
snare       ....|9...|....|9.
hat.closed  8.5.|8.5.|8.5.|5.

groove ghost notes < main
snare       ..1.|9.2.|.1..|9.

groove on the ride < main
move ride

groove open hats < main
hat.closed  8.5.|8.5.|8.5.|..
hat.open    ....|....|....|6.

groove half-time < main
kick        9...|....|....|..|....|..7.|....|..
snare       ....|....|....|..|9...|....|....|..

groove busier < main
kick        9..5|....|9..7|..
snare       ..2.|9.22|.2..|92
hat.closed  8454|8454|8454|54

groove sparser < main
kick        9...|....|9...|..
hat.closed  8...|8...|8...|..

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|....|9...|..
snare       ....|9.56|7...|89
tom.mid     ....|....|.78.|..
hat.closed  8.5.|8...|....|..

groove fill 2 < main
kick        9...|....|....|9.
snare       ....|9.5.|67..|..
tom.high    ....|....|..7.|..
tom.floor   ....|....|...7|88
hat.closed  8.5.|8...|....|..

groove ending < main
kick        9...|....|9...|..
snare       ....|9...|9...|..
hat.closed  8.5.|8.5.|....|..
crash       ....|....|9...|..

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const WALTZ = `
style Waltz
place Slow carousel
tempo 126 96-168
meter 3/4
grid 1/8T
keeper ride
late snare 4, hat.pedal 2
hands 5
tags three jazz

groove main
kick        7..|...|...|7..|...|..4
snare       ...|..4|...|...|5..|..4
ride        7..|6.5|6.5|7..|6.5|6.5
hat.pedal   ...|6..|...|...|6..|...

groove ghost notes < main
snare       ..1|..4|.1.|..2|5..|..4

groove on the hat < main
drop hat.pedal
move hat.closed

groove open hats < main
drop hat.pedal
ride        7..|..5|6.5|7..|..5|6.5
hat.open    ...|5..|...|...|5..|...

groove half-time < main
kick        7..|...|...|...|...|...
ride        7..|...|6..|...|6..|...
snare       ...|...|...|5..|...|...

groove busier < main
kick        7..|..4|...|7..|..3|..4
snare       ..2|5.4|..2|..3|5.2|.34

groove sparser < main
kick        7..|...|...|...|...|...
snare       ...|...|...|...|5..|...

groove without kick < main
drop kick

groove fill 1 < main
kick        7..|...|..7
snare       ..4|567|...
tom.floor   ...|...|78.
ride        7..|...|...
drop hat.pedal

groove fill 2 < main
kick        7..|...|7..
snare       .5.|5.5|.67
ride        7..|...|...

groove ending < main
kick        7..|...|8..
snare       ...|..5|7..
ride        7..|6.5|...
crash       ...|...|7..
drop hat.pedal

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;
