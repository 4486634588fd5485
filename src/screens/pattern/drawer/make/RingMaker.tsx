import { Figure } from '../../../../ui/Figure';
import { modulo } from '../../../../../core/numbers';
import { bounds } from '../../../../../core/document/ranges';
import { GRIDS, type Grid } from '../../../../../core/document/grid';
import type { Lane } from '../../../../../core/document/schema';
import { RING_DEFAULTS, ringParts, type RingSettings } from '../../../../../core/make/makers';
import {
  arrangementOf,
  arrangementSlots,
  euclideanSlots,
  RING_SLOTS,
  rotatedSlots,
} from '../../../../../core/make/ring';
import { selectBeat, selectPattern, useApp, useAppStore } from '../../../../store/store';
import { RingHand } from '../../../../strings/RingHand';
import { Chip } from '../../../../ui/Chip';
import { CheckBox } from '../../../../ui/CheckBox';
import { Choice } from '../../../../ui/Choice';
import { Disclosure } from '../../../../ui/Disclosure';
import { Chips, Group } from '../../../../ui/Layout';
import { FROM_ONE } from '../../../../ui/figures';
import { Range } from '../../../../ui/Range';
import { words } from '../../../../words/make';
import { useArrangements } from './arrangementList';
import { give, useLive, useMaker } from './settings';

const GRID_NAMES = GRIDS.map((value) => ({ value, name: value }));

/** Turns of one drag are told from where it began. */
const began: { gesture: string; rotate: number } = { gesture: '', rotate: 0 };

/** A rhythm from a ring of slots, turned by hand. */
export const RingMaker = ({ lane }: { lane: Lane }) => {
  const store = useAppStore();
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const [live] = useLive();
  const {
    settings: s,
    setSettings,
    seed,
    drawAgain,
  } = useMaker<RingSettings>('ring', RING_DEFAULTS, lane.id);
  const list = useArrangements(s.slots, s.strikes);
  const change = (some: Partial<RingSettings>, gesture?: string, from = seed) => {
    const settings = { ...s, ...some };
    setSettings(settings);
    const pattern = selectPattern(store.getState())!;
    give(
      store,
      { maker: 'ring', parts: ringParts(pattern, lane.id, settings, from), settings, seed: from },
      live,
      gesture,
    );
  };
  const struck = rotatedSlots(s.struck, s.slots, s.rotate);
  const accents = new Set(
    struck.filter((_, strike) => s.every > 0 && modulo(strike - s.from, s.every) === 0),
  );
  const own = arrangementOf(s.struck, s.slots);
  const at = list ? list.indexOf(own.mask) + 1 : s.which;
  const resize = (slots: number, strikes: number, gesture?: string) => {
    const held = Math.min(slots, strikes);
    change(
      {
        slots,
        strikes: held,
        which: 1,
        rotate: modulo(s.rotate, slots),
        struck: euclideanSlots(slots, held),
      },
      gesture,
    );
  };
  const toggle = (slot: number) => {
    const now = struck.includes(slot)
      ? struck.filter((one) => one !== slot)
      : [...struck, slot].sort((a, b) => a - b);
    const { struck: plain, rotate } = arrangementOf(now, s.slots);
    change({ struck: plain, rotate, strikes: now.length, which: 0 });
  };
  const turn = (by: number, gesture: string) => {
    if (began.gesture !== gesture) Object.assign(began, { gesture, rotate: s.rotate });
    change({ rotate: modulo(began.rotate + by, s.slots) }, gesture);
  };
  const others = lanes.filter(({ id }) => id !== lane.id);
  const deal = s.deal.split(',').filter(Boolean);
  return (
    <Group title={words.ringOf(lane.name)}>
      <RingHand
        label={words.ringOf(lane.name)}
        slots={s.slots}
        struck={struck}
        accents={accents}
        middle={words.strikesOf(struck.length, s.slots)}
        onToggle={toggle}
        onTurn={turn}
      />
      <Range
        label={words.strikes}
        short={words.strikesShort}
        value={s.strikes}
        least={0}
        most={s.slots}
        step={1}
        shown={String(s.strikes)}
        onChange={(strikes, gesture) => resize(s.slots, strikes, gesture)}
      />
      <Range
        label={words.arrangement}
        short={words.arrangementShort}
        value={Math.max(1, at)}
        least={1}
        most={Math.max(1, list?.length ?? 1)}
        step={1}
        shown={list ? words.whichOf(at, list.length.toLocaleString('en')) : words.listing}
        onChange={(which, gesture) =>
          list && change({ which, struck: arrangementSlots(list[which - 1]!, s.slots) }, gesture)
        }
      />
      <Range
        label={words.turn}
        short={words.turnShort}
        value={s.rotate}
        least={0}
        most={Math.max(0, s.slots - 1)}
        step={1}
        shown={String(s.rotate)}
        onChange={(rotate, gesture) => change({ rotate }, gesture)}
      />
      <Range
        label={words.slots}
        short={words.slotsShort}
        value={s.slots}
        {...bounds(RING_SLOTS)}
        step={1}
        shown={String(s.slots)}
        onChange={(slots, gesture) => resize(slots, s.strikes, gesture)}
      />
      <Choice<Grid>
        label={words.slotLength}
        short={words.slotLengthShort}
        value={s.grid}
        options={GRID_NAMES}
        onChange={(grid) => change({ grid })}
      />
      <Chips>
        <Chip pressed={s.own} onPress={() => change({ own: true })}>
          {words.ownLoop}
        </Chip>
        <Chip pressed={!s.own} onPress={() => change({ own: false })}>
          {words.fillsPattern}
        </Chip>
      </Chips>
      <Figure
        of="velocity"
        label={words.baseVelocity}
        short={words.velocityShort}
        value={s.velocity}
        onChange={(velocity, gesture) => change({ velocity }, gesture)}
      />
      <Range
        label={words.accentEvery}
        short={words.everyShort}
        value={s.every}
        least={0}
        most={12}
        step={1}
        shown={s.every ? String(s.every) : words.noAccents}
        onChange={(every, gesture) => change({ every }, gesture)}
      />
      {s.every ? (
        <>
          <Figure
            of="velocity"
            label={words.accentVelocity}
            short={words.accentShort}
            value={s.accent}
            onChange={(accent, gesture) => change({ accent }, gesture)}
          />
          <Range
            label={words.accentFrom}
            short={words.fromShort}
            value={s.from}
            least={0}
            most={Math.max(0, s.strikes - 1)}
            step={1}
            written={FROM_ONE}
            shown={words.nth(s.from + 1)}
            onChange={(from, gesture) => change({ from }, gesture)}
          />
        </>
      ) : null}
      <Figure
        of="chance"
        label={words.doubling}
        short={words.doublingShort}
        value={s.doubling}
        onChange={(doubling, gesture) => change({ doubling }, gesture)}
      />
      {s.doubling > 0 ? (
        <Chips>
          <Chip pressed={s.into === 2} onPress={() => change({ into: 2 })}>
            {words.intoTwo}
          </Chip>
          <Chip pressed={s.into === 3} onPress={() => change({ into: 3 })}>
            {words.intoThree}
          </Chip>
          <Chip onPress={() => drawAgain((next) => change({}, undefined, next))}>{words.anotherDraw}</Chip>
        </Chips>
      ) : null}
      <Choice
        label={words.theRest}
        short={words.restShort}
        value={others.some(({ id }) => id === s.rest) ? s.rest : ''}
        options={[{ value: '', name: words.nobody }, ...others.map(({ id, name }) => ({ value: id, name }))]}
        onChange={(rest) => change({ rest })}
      />
      <Disclosure title={words.dealtTo}>
        <Chips>
          {others.map(({ id, name }) => (
            <CheckBox
              key={id}
              label={words.dealt(name)}
              checked={deal.includes(id)}
              onChange={(on) =>
                change({ deal: (on ? [...deal, id] : deal.filter((one) => one !== id)).join(',') })
              }
            >
              {name}
            </CheckBox>
          ))}
        </Chips>
      </Disclosure>
    </Group>
  );
};
