/** Coasts and islands. */
export const SAMBA = `
style Samba
place Full nets
tempo 104 92-126
swing 53 1/16
keeper hat.closed
late hat.closed -3, snare -2, tom.floor 6
hands 5
tags carnival sixteenths

groove main
kick        4..6|9..6|4..6|9..6
snare       6.3.|..36|.36.|..6.
hat.closed  7456|7456|7456|7456
tom.floor   ....|8...|....|8...

groove ghost notes < main
snare       6131|.136|1361|.161

groove on the ride < main
hat.closed  7.56|7.56|7.56|7.56
move ride

groove open hats < main
hat.closed  74.6|74.6|74.6|74.6
hat.open    ..6.|..6.|..6.|..6.

groove half-time < main
kick        4...|..6.|9...|..6.
snare       6..3|..6.|..3.|6...
hat.closed  7.5.|7.5.|7.5.|7.5.
tom.floor   ....|....|8...|....

groove busier < main
kick        4.46|9.46|4.46|9.46
snare       6436|.436|4364|.643

groove sparser < main
snare       6...|...6|..6.|....
hat.closed  7.5.|7.5.|7.5.|7.5.

groove without kick < main
drop kick

groove fill 1 < main
kick        4..6|9..6|4..6|9...
snare       6.3.|..36|6666|..88
hat.closed  7456|7456|....|....

groove fill 2 < main
kick        4..6|9...|....|9...
snare       6.3.|6...|f..f|..f.
tom.high    ....|..7.|.7..|....
tom.floor   ....|....|..8.|.8..
hat.closed  7456|....|....|....

groove ending < main
kick        4..6|9..6|9...|....
snare       6.3.|6.36|9...|....
hat.closed  7456|7456|....|....
drop tom.floor

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const BOSSA = `
style Bossa nova
place Harbour steps
tempo 132 112-152
keeper hat.closed
late snare.sideStick 3, hat.closed 1
hands 4
tags gentle clave

groove main
kick             8..5|8..5|8..5|8..5|8..5|8..5|8..5|8..5
snare.sideStick  7..6|..7.|..6.|7...|..7.|7...|6..7|....
hat.closed       6.4.|5.4.|6.4.|5.4.

groove ghost notes < main
snare            .1..|...1|.1.1|..1.|.1..|...1|.1.1|..1.

groove on the ride < main
hat.closed       6.4.|6.4.|6.4.|6.4.
move ride

groove open hats < main
hat.closed       6.4.|5...|6.4.|5...
hat.open         ....|..4.|....|..4.

groove half-time < main
kick             8...|..5.|8...|..5.
snare.sideStick  7...|..6.|....|7...
hat.closed       6...|4...|6...|4...

groove busier < main
hat.closed       6454|5454|6454|5454
hat.pedal        ....|....|....|....|....|....|....|..5.

groove sparser < main
kick             8...|8...|8...|8...
snare.sideStick  7...|..7.|....|7...|..7.|....|7...|....

groove without kick < main
drop kick

groove fill 1 < main
kick             8..5|8..5|8..5|8...
snare.sideStick  7..6|..7.|....|....
tom.high         ....|....|5.6.|....
tom.low          ....|....|....|6.7.
hat.closed       6.4.|5.4.|....|....

groove fill 2 < main
kick             8..5|8...|8...|8...
snare.sideStick  7..6|..7.|.7.7|.7..
hat.closed       6.4.|5.4.|6...|....

groove ending < main
kick             8..5|8..5|8...|....
snare.sideStick  7..6|..7.|7...|....
hat.closed       6.4.|5.4.|....|....
ride.bell        ....|....|5...|....

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const ONE_DROP = `
style One drop
place Slack rope
tempo 74 66-84
swing 62 1/16
keeper hat.closed
late kick 8, snare.sideStick 8, hat.closed 2
hands 5
tags reggae space

groove main
kick             ....|....|9...|....
snare.sideStick  ....|....|8...|....
hat.closed       6.53|7.5.|6.53|7.53

groove ghost notes < main
snare            ...1|..1.|...2|.1..

groove on the ride < main
move ride

groove open hats < main
hat.closed       6.53|7...|6.53|7...
hat.open         ....|..6.|....|..6.

groove half-time < main
kick             ....|....|....|....|9...|....|....|....
snare.sideStick  ....|....|....|....|8...|....|....|....
hat.closed       6...|5...|7...|5...

groove busier < main
kick             9...|..4.|9...|..5.
snare.sideStick  ..3.|..4.|8..3|.4..
hat.closed       6453|7453|6453|745r

groove sparser < main
hat.closed       ..5.|..5.|..5.|..5.

groove without kick < main
drop kick

groove fill 1 < main
kick             ....|....|9...|....
snare.sideStick  ....|....|....|....
timbale.high     ..7.|.77.|8...|....
timbale.low      ....|....|..7.|77..
hat.closed       6...|....|....|....
drop snare.sideStick

groove fill 2 < main
kick             ....|....|....|9...
snare            ...7|...6|.5.6|7.r.
hat.closed       6.5.|7...|....|....
drop snare.sideStick

groove ending < main
kick             ....|....|9...|....
snare            ....|..57|8...|....
hat.closed       6.53|7...|....|....
crash            ....|....|8...|....
drop snare.sideStick

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const BELL_SIX = `
style Six-eight bell
place Buoy and bell
tempo 112 96-132
meter 6/8
grid 1/8
keeper cowbell
late conga.open 6, conga.low 6, cowbell -2
hands 5
tags twelve-pulse ceremonial two-players

groove main
kick        8..|8..|8..|8..
cowbell     7.7|.77|.7.|7.7
conga.low   ..6|...|..6|...
conga.open  ...|6.6|...|6.6

groove ghost notes < main
conga.mute  22.|.2.|22.|.2.

groove on the ride < main
move ride

groove open hats < main
hat.open    ...|5..|...|5..

groove half-time < main
kick        8..|...|8..|...
conga.open  ...|6..|...|6..

groove busier < main
kick        8.4|8..|8.4|8.4
snare.sideStick  .5.|5..|.5.|..5
conga.mute  .3.|.3.|.3.|.3.

groove sparser < main
drop conga.low conga.open

groove without kick < main
drop kick

groove fill 1 < main
kick        8..|8..|8..|8..
cowbell     7.7|.77|...|...
conga.open  ...|...|667|...
conga.low   ...|...|...|788

groove fill 2 < main
kick        8..|8..|...|8..
cowbell     7.7|...|...|...
tom.high    ...|6.6|.6.|...
tom.floor   ...|...|7.7|.78
drop conga.low conga.open

groove ending < main
kick        8..|8..|9..|...
cowbell     7.7|.77|8..|...
conga.open  ...|6.6|...|...
conga.low   ..6|...|8..|...

groove main in four bars = main + main > fill 1

groove main in eight bars = main + ghost notes + main + main > fill 2
`;

export const HIGHLIFE = `
style Highlife
place Palm stalls
tempo 116 104-128
swing 52 1/16
keeper hat.closed
late snare.sideStick -2, kick 2
hands 4
tags bright interlocking two-players

groove main
kick             8...|..7.|..6.|8...
snare.sideStick  7..7|...7|..7.|7...
hat.closed       5.7.|5.7.|5.7.|5.7.
conga.open       ....|..66|....|..66

groove ghost notes < main
snare            .1..|.1..|.1.1|..1.

groove on the ride < main
move ride

groove open hats < main
hat.closed       5...|5.7.|5...|5.7.
hat.open         ..6.|....|..6.|....

groove half-time < main
kick             8...|....|..7.|....
snare.sideStick  7...|...7|....|7...
hat.closed       5...|7...|5...|7...

groove busier < main
kick             8..5|..7.|..6.|8..4
hat.closed       5474|5474|5474|5474

groove sparser < main
drop conga.open
hat.closed       ..7.|..7.|..7.|..7.

groove without kick < main
drop kick

groove fill 1 < main
kick             8...|..7.|..6.|8...
snare            ..56|..6.|67.8|..89
hat.closed       5...|5...|....|....
drop snare.sideStick conga.open

groove fill 2 < main
kick             8...|..7.|....|8...
snare.sideStick  7..7|....|....|....
tom.high         ....|66.6|....|....
tom.floor        ....|....|6.66|.78.
hat.closed       5.7.|....|....|....
drop conga.open

groove ending < main
kick             8...|..7.|8...|....
snare.sideStick  7..7|...7|....|....
snare            ....|....|8...|....
hat.closed       5.7.|5.7.|....|....
drop conga.open

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const STREET_PARADE = `
style Street parade
place Brass alley
tempo 98 88-112
swing 59 1/16
keeper snare
late snare 3, kick -2
hands 7
tags second-line rolling

groove main
kick        9..6|....|..7.|9...
snare       3353|3368|3353|6383
hat.pedal   ....|6...|....|6...

groove ghost notes < main
snare       2142|2167|2142|6182

groove on the ride < main
snare       ....|..68|....|6.8.
ride.bell   7..7|..7.|..7.|7...
keeper ride.bell

groove open hats < main
hat.open    ....|6...|....|6...
drop hat.pedal

groove half-time < main
kick        9...|..6.|....|..7.
snare       3333|3343|8353|3343

groove busier < main
kick        9..6|..5.|..7.|9..5
snare       3453|3f68|34r3|6f83

groove sparser < main
snare       ..5.|..6.|..5.|6.8.

groove without kick < main
drop kick

groove fill 1 < main
kick        9..6|....|..7.|9...
snare       3353|3f.f|..f.|f.r9

groove fill 2 < main
kick        9...|....|9...|9...
snare       3353|5566|77..|..89
tom.floor   ....|....|..88|....
drop hat.pedal

groove ending < main
kick        9..6|....|9...|....
snare       3353|3368|9...|....
crash       ....|....|8...|....
drop hat.pedal

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;
