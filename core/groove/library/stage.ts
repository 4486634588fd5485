/** Grooves played with sticks on a stage. */
export const BACKBEAT = `
style Rock backbeat
place Tin stage
tempo 112 98-128
keeper hat.closed
late snare 4, kick -1
hands 4
tags eighths solid

groove main
kick        9...|..7.|9...|....|9...|..7.|9.7.|....
snare       ....|9...|....|9...
hat.closed  8.6.|8.6.|8.6.|8.6.

groove ghost notes < main
snare       ...1|9..2|..2.|9..1|...1|9..2|..2.|9.12

groove on the ride < main
hat.closed  8.6.|8.6.|8.6.|8.6.|8.6.|8.6.|8.6.|8...
hat.open    ....|....|....|....|....|....|....|..8.
move ride

groove open hats < main
drop hat.closed
hat.open    8.5.|8.5.|8.5.|8.5.
keeper hat.open

groove half-time < main
kick        9...|..6.|....|7.7.|9...|....|..6.|7...
snare       ....|....|9...|....

groove busier < main
kick        9..6|..7.|9.6.|..5.|9..6|..7.|9.7.|.6..
snare       ....|9..2|.2..|9..2|....|9..2|.2..|9.33

groove sparser < main
kick        9...|....|9...|....
hat.closed  8...|8...|8...|8...

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|..7.|9...|9...
snare       ....|9...|78..|....
hat.closed  8.6.|8.6.|....|....
tom.high    ....|....|..78|....
tom.floor   ....|....|....|7889

groove fill 2 < main
kick        9...|..7.|....|....
snare       ....|9...|7788|8899
hat.closed  8.6.|8.6.|....|....

groove ending < main
kick        9...|..7.|9.9.|....
snare       ....|9...|8.9.|....
hat.closed  8.6.|8.6.|....|....
crash       ....|....|..9.|....

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const SHUFFLE = `
style Shuffle
place Paddle wheel
tempo 118 100-136
grid 1/8T
keeper hat.closed
late snare 6
hands 4
tags blues rolling

groove main
kick        9..|..6|9..|...|9..|..6|9.5|...
snare       ...|9..|...|9..
hat.closed  8.6|7.6|8.6|7.6

groove ghost notes < main
snare       .2.|9.2|.2.|9.2

groove on the ride < main
move ride

groove open hats < main
hat.closed  8.6|7..|8.6|7..
hat.open    ...|..6|...|..6

groove half-time < main
kick        9..|..5|...|..6|9..|...|..6|...
snare       .2.|.2.|9.2|.2.|.2.|.2.|9.2|.2.

groove busier < main
kick        9.5|..6|9.5|..6
snare       .22|9.2|.22|923

groove sparser < main
kick        9..|...|9..|...
hat.closed  8..|7..|8..|7..

groove without kick < main
drop kick

groove fill 1 < main
kick        9..|..6|9..|9..
snare       ...|9..|67.|...
hat.closed  8.6|7.6|...|...
tom.high    ...|...|..7|...
tom.floor   ...|...|...|789

groove fill 2 < main
kick        9..|..6|...|...
snare       ...|9.4|567|889
hat.closed  8.6|7..|...|...

groove ending < main
kick        9..|..6|9..|...
snare       ...|9.7|8..|...
hat.closed  8.6|7..|...|...
crash       ...|...|9..|...

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const SLOW_TWELVE = `
style Slow twelve
place Old quay
tempo 66 54-78
meter 12/8
grid 1/8
keeper hat.closed
late snare 12, hat.closed 3
hands 6
tags ballad gospel

groove main
kick        9..|..4|7.6|...
snare       ...|9..|...|9..
hat.closed  755|655|755|655

groove ghost notes < main
snare       ..1|9.2|.1.|9.2

groove on the ride < main
move ride

groove open hats < main
hat.closed  755|65.|755|65.
hat.open    ...|..5|...|..5

groove half-time < main
kick        9..|...|..5|..6
snare       ...|...|9..|...

groove busier < main
kick        9.4|..4|7.6|..4
snare       .12|9.2|.12|92.
hat.closed  756|656|756|65r

groove sparser < main
kick        9..|...|7..|...
hat.closed  7..|6..|7..|6..

groove without kick < main
drop kick

groove fill 1 < main
kick        9..|..4|7..|...
snare       ...|9..|.56|...
hat.closed  755|655|7..|...
tom.high    ...|...|...|7..
tom.floor   ...|...|...|.78

groove fill 2 < main
kick        9..|...|...|8..
snare       ...|9..|456|.78
hat.closed  755|6..|...|...

groove ending < main
kick        9..|..4|8..|...
snare       ...|9..|7..|...
hat.closed  755|65.|...|...
crash       ...|...|8..|...

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const BRUSHES = `
style Brushes
place Rain on tarps
tempo 132 96-180
grid 1/8T
keeper ride
late ride -3, hat.pedal 2, snare 4
hands 6
tags jazz soft

groove main
kick        3..|3..|3..|3..
snare       4..|5.2|4..|5.2
ride        6..|7.4|6..|7.4
hat.pedal   ...|6..|...|6..

groove ghost notes < main
snare       4.1|5.2|4.1|512

groove on the hat < main
move hat.closed

groove open hats < main
drop ride hat.pedal
hat.open    6..|...|6..|...
hat.closed  ...|7.4|...|7.4
keeper hat.closed

groove half-time < main
ride        6..|4..|6..|4..
hat.pedal   ...|...|6..|...
snare       4..|..2|5..|..2

groove busier < main
snare       4.2|5.2|4.3|5.2|4.2|53.|4.2|5.4
kick        3..|3.4|3..|3..|3..|3..|3.5|3..

groove sparser < main
drop kick
snare       ...|5..|...|5..

groove without kick < main
drop kick

groove fill 1 < main
snare       4..|5.3|4.5|345
ride        6..|7..|...|...
kick        3..|3..|3..|..6
hat.pedal   ...|6..|...|6..

groove fill 2 < main
snare       4..|.5.|.5.|.6.
ride        6..|...|...|...
kick        3..|..4|..4|..7
hat.pedal   ...|6..|...|6..
tom.floor   ...|4..|4..|4..

groove ending < main
snare       4..|5.2|5..|...
ride        6..|7.4|...|...
ride.bell   ...|...|6..|...
kick        3..|3..|6..|...
hat.pedal   ...|6..|...|...

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + busier + main + ghost notes + main + main > fill 2
`;

export const TRAIN = `
style Train beat
place Night freight
tempo 104 92-128
swing 54 1/16
keeper snare
late kick -2
hands 5
tags country chugging

groove main
kick        9...|8...|9...|8...
snare       3353|3383|3353|3384
hat.pedal   ..5.|..5.|..5.|..5.

groove ghost notes < main
snare       2141|2182|2141|2183

groove on the ride < main
snare       ....|..8.|....|..8.
ride        7.5.|7.5.|7.5.|7.5.
keeper ride

groove open hats < main
hat.open    ..5.|....|..5.|....
drop hat.pedal

groove half-time < main
kick        9...|....|8...|....
snare       3333|3333|8333|3334

groove busier < main
kick        9..4|8...|9..4|8.5.
snare       3453|3484|3453|34r4

groove sparser < main
snare       3.5.|3.8.|3.5.|3.8.
drop hat.pedal

groove without kick < main
drop kick

groove fill 1 < main
kick        9...|8...|9...|8...
snare       3353|3383|556.|788.
tom.floor   ....|....|...6|...8

groove fill 2 < main
kick        9...|8...|....|8...
snare       3353|338.|f.5.|f.d.
tom.floor   ....|....|..6.|..7.
drop hat.pedal

groove ending < main
kick        9...|8...|9...|....
snare       3353|3383|9...|....
crash       ....|....|8...|....
drop hat.pedal

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;
