/** Grooves that turn about a clave, or about the procession that carries it. */
export const MARACATU = `
style Maracatu
place Procession steps
tempo 96 84-112
keeper agogo.high
late snare 3
hands 5
tags carnival heavy two-players

groove main
kick        9..7|..9.|9...|..8.
snare       7434|7438|7434|7438
agogo.high  8.8.|..8.|8.8.|....
agogo.low   ....|7...|....|7.7.

groove ghost notes < main
snare       7323|7328|7323|7328

groove on the ride < main
drop agogo.high
drop agogo.low
ride        8.8.|7.8.|8.8.|7.7.

groove open hats < main
hat.open    ....|..7.|....|..7.

groove half-time < main
kick        9...|....|9...|..8.
snare       7434|7434|9434|7434

groove busier < main
kick        9..7|..9.|9..7|.98.
tom.floor   ....|...6|....|.7.7

groove sparser < main
snare       7...|7..8|7...|7..8

groove without kick < main
drop kick

groove fill 1 < main
kick        9..7|..9.|9...|9...
snare       7434|7438|8888|8r8A

groove fill 2 < main
kick        9..7|..9.|....|9...
snare       7434|7438|....|....
tom.high    ....|....|88.8|....
tom.floor   ....|....|..8.|899A

groove ending < main
kick        9..7|..9.|A...|....
snare       7434|7438|A...|....
agogo.high  8.8.|..8.|....|....
agogo.low   ....|7...|....|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const CASCARA = `
style Cascara
place Tin-roof stall
tempo 102 88-120
keeper timbale.high
late snare.sideStick 2
hands 4
tags latin shell three-two two-players

groove main
timbale.high 8.6.|86.8|8.66|.8.6
claves      8..8|..8.|..8.|8...
kick        ...7|....|...7|....
conga.open  ....|....|....|8.8.

groove ghost notes < main
conga.mute  3.3.|8.3.|3.3.|....

groove on the ride < main
drop timbale.high
ride.bell   8.6.|86.8|8.66|.8.6

groove open hats < main
hat.open    ....|..6.|....|..6.

groove half-time < main
timbale.high 8...|6...|8...|6.6.
claves      8...|..8.|....|8...

groove busier < main
conga.mute  3.3.|8.3.|3.3.|3...
kick        ...7|..6.|...7|..6.

groove sparser < main
drop conga.open

groove without kick < main
drop kick

groove fill 1 < main
timbale.high 8.6.|86.8|8.88|8...
timbale.low ....|....|....|.89A

groove fill 2 < main
timbale.high 8.6.|86..|88.8|8.8.
timbale.low ....|...8|....|.9.A
drop conga.open

groove ending < main
timbale.high 8.6.|86.8|A...|....
claves      8..8|..8.|8...|....
kick        ...7|....|9...|....
conga.open  ....|....|8...|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const SON = `
style Son clave
place Corner bakery
tempo 98 84-116
keeper maracas
late conga.open 3
hands 4
tags latin three-two two-players

groove main
claves      8..8|..8.|..8.|8...
maracas     6.4.|6.4.|6.4.|6.4.
bongo.high  7.4.|6.4.|7.4.|....
bongo.low   ....|....|....|7.6.
kick        ...7|..7.|...7|..7.

groove ghost notes < main
bongo.high  7242|6242|7242|....

groove on the ride < main
drop maracas
ride        6.4.|6.4.|6.4.|6.4.

groove open hats < main
hat.open    ....|..6.|....|..6.

groove half-time < main
claves      8...|..8.|....|8...
bongo.high  7...|4...|7...|....

groove busier < main
conga.mute  4.3.|9.3.|4.3.|3...
conga.open  ....|....|....|8.9.
drop bongo.high
drop bongo.low

groove sparser < main
drop bongo.high
drop bongo.low

groove without kick < main
drop kick

groove fill 1 < main
bongo.high  7.4.|6.4.|7.88|....
bongo.low   ....|....|....|8.9A

groove fill 2 < main
bongo.high  7.4.|6.4.|88.8|8...
bongo.low   ....|....|..8.|.8.A
maracas     6.4.|6.4.|....|....

groove ending < main
claves      8..8|..8.|8...|....
maracas     6.4.|6.4.|8...|....
bongo.high  7.4.|6.4.|....|....
bongo.low   ....|....|9...|....
kick        ...7|..7.|9...|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;

export const RUMBA = `
style Rumba clave
place Net menders
tempo 106 90-126
keeper woodblock.high
late conga.open 3
hands 4
tags latin three-two two-players

groove main
claves      8..8|...8|..8.|8...
woodblock.high 8.6.|86.8|.86.|8.66
conga.mute  3.3.|8.3.|3.3.|....
conga.open  ....|..7.|....|8.8.
conga.low   ....|....|..7.|....

groove ghost notes < main
conga.mute  3232|8.32|3232|....

groove on the ride < main
drop woodblock.high
ride.bell   8.6.|86.8|.86.|8.66

groove open hats < main
hat.open    ....|..6.|....|..6.

groove half-time < main
claves      8...|...8|....|8...
woodblock.high 8...|6...|8...|6...

groove busier < main
kick        ....|..7.|....|..7.
snare.sideStick ....|7...|....|7...

groove sparser < main
drop conga.low
drop conga.mute

# The foot comes in with what is busier; here it is the hands alone.
groove without kick < main
conga.low   ....|....|..7.|...6

groove fill 1 < main
conga.mute  3.3.|8.3.|....|....
conga.open  ....|..7.|88.8|8...
conga.low   ....|....|..7.|.89A

groove fill 2 < main
conga.mute  3.3.|8...|....|....
conga.open  ....|..8.|8.88|....
conga.low   ....|....|.8..|8.8A
woodblock.high 8.6.|86.8|....|....

groove ending < main
claves      8..8|...8|8...|....
woodblock.high 8.6.|86.8|8...|....
conga.mute  3.3.|8.3.|....|....
conga.open  ....|..7.|....|....
conga.low   ....|....|A...|....

groove main in four bars = main + ghost notes + main + main > fill 1

groove main in eight bars = main + ghost notes + main + busier + main + ghost notes + main + main > fill 2
`;
