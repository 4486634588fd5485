import type { Switched } from '../../play/moves/detours';
import type { DrumMap } from '../../document/drumMapSchema';
import type { Follow, Template } from '../../document/feelSchema';
import type { Meter } from '../../document/meter';
import type { Band } from '../../document/playersSchema';
import type {
  Beat,
  Detour,
  Echoes,
  Entry,
  Feel,
  Grace,
  Hit,
  Lane,
  LanePattern,
  Loop,
  OwnKit,
  Pattern,
  PatternKey,
  Place,
  Roll,
  Section,
  Song,
  Spark,
  Stagger,
  Swing,
  Take,
  Voice,
} from '../../document/schema';
import type { Groove } from '../../groove/groove';
import type { MapChoice } from '../../midi/drumMap/laneMap';
import type { MidiNote } from '../../units';
import type { Bring } from '../../bring/bring';
import type { Clip } from '../clip';
import { thing } from '../define';
import type { FillOffer } from '../fills';
import type { SectionChange } from '../song';
import type { SoundsTold } from '../sounds';

/** Arguments given as a whole: a part of a document, in the form of its schema, or what is outside it. */
export const THINGS = {
  band: thing<Band>('band'),
  beat: thing<Beat>('beat'),
  blend: thing<NonNullable<Feel['blend']>>('blend'),
  bring: thing<Bring>('bring'),
  clip: thing<Clip>('clip'),
  detour: thing<Detour>('detour'),
  drumMap: thing<DrumMap>('drum map'),
  echoes: thing<Echoes>('echoes'),
  entry: thing<Entry>('entry'),
  feel: thing<Feel>('feel'),
  fillOffer: thing<FillOffer>('fill offer'),
  follow: thing<Follow>('template with its amounts'),
  graceStrokes: thing<Grace[]>('grace strokes'),
  groove: thing<Groove>('groove'),
  idsByLane: thing<Record<string, string>>('ids by lane'),
  key: thing<PatternKey>('key'),
  lanes: thing<Lane[]>('lanes'),
  laneParts: thing<Record<string, LanePattern>>('lane patterns'),
  loop: thing<Loop>('loop'),
  maker: thing<NonNullable<Take['made']>>('maker'),
  mapChoice: thing<MapChoice>('map choice'),
  meter: thing<Meter>('meter'),
  notesByLane: thing<Record<string, MidiNote>>('notes by lane'),
  ownKit: thing<OwnKit>('own kit'),
  passes: thing<NonNullable<Hit['passes']>>('passes'),
  pattern: thing<Pattern>('pattern'),
  place: thing<Place>('place'),
  roll: thing<Roll>('roll'),
  route: thing<number[]>('route'),
  section: thing<Section>('section'),
  sectionChange: thing<SectionChange>('section change'),
  song: thing<Song>('song'),
  sparks: thing<Spark[]>('sparks'),
  stagger: thing<Stagger>('stagger'),
  swing: thing<Swing>('swing'),
  switchedRoutes: thing<Switched[]>('switched routes'),
  template: thing<Template>('template'),
  toldSlices: thing<(SoundsTold | null)[]>('told slices'),
  voice: thing<Voice>('voice'),
};
