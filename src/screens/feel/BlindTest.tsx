import { Disclosure } from '../../ui/Disclosure';
import { Items, Item, Chips, Group } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { styles } from './styles';
import { use, useEffect, useRef, useState } from 'react';
import { SayContext } from '../../ui/say';
import { byChance, type Compared } from '../../../core/analysis/compare';
import {
  type BlindTestState as Test,
  blindHeard,
  blindTestBegun,
  blindTestLeft,
  blindTestTurned,
  comparingEnded,
} from '../../store/comparing';
import { selectFeel, useApp, useDo, type Store, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { keepTally, readTallies, type Tally } from './tally';
import { words } from '../../words/feel';

/** A verdict asks for so many rounds, settled before the first: who stops when it looks well proves nothing. */
export const ROUNDS = 12;

/** Each of the two is to be heard for so long before an answer counts. */
const LISTEN_MS = 1000;

const coin = (): boolean => crypto.getRandomValues(new Uint8Array(1))[0]! < 128;

/** Both go the same way through the player, so that neither takes longer to be heard. */
const listen = (store: Store, test: Test, hearing: 0 | 1): void => {
  const feel = (hearing === 0) === test.feelFirst;
  store.dispatch(blindHeard(feel ? 'self' : test.which));
};

const luckText = (right: number, of: number): string => {
  const luck = 100 * byChance(right, of);
  const often = luck < 1 ? words.fewerThan1 : luck > 99 ? words.moreThan99 : String(Math.round(luck));
  return words.guessingGivesRightOrMore(right, of, often);
};

/** What a whole test says (exact binomial, one-sided). */
const verdict = ({ right, of }: Tally): string =>
  words.rightRightOfOfLuck(right, of, luckText(right, of), byChance(right, of));

const nextRound = (which: Compared, before?: Test): Test => ({
  which,
  right: before?.right ?? 0,
  of: before?.of ?? 0,
  feelFirst: coin(),
});

const Before = ({ tallies }: { tallies: Tally[] }) =>
  tallies.length ? (
    <Disclosure title={words.testsSoFarMany(tallies.length)}>
      <Items style={styles.tallies}>
        {[...tallies].reverse().map((one) => (
          <Item key={one.at}>
            <Words>
              {words.onDayAgainst(
                new Date(one.at).toLocaleDateString(),
                one.against,
                one.right,
                one.of,
                one.of < ROUNDS,
              )}
            </Words>
          </Item>
        ))}
      </Items>
    </Disclosure>
  ) : null;

interface RoundProps {
  test: Test;
  onAnswer: (first: boolean) => void;
  onEnd: () => void;
}

/** One round: the two are heard as often as one likes, then one says which it was. */
const Round = ({ test, onAnswer, onEnd }: RoundProps) => {
  const store = useAppStore();
  const playing = useApp((state) => state.transport.playing);
  const [hearing, setHearing] = useState<0 | 1>(0);
  const [heard, setHeard] = useState({ first: false, second: false });
  useEffect(() => {
    listen(store, test, hearing);
    if (!playing) return;
    const timer = setTimeout(
      () => setHeard((now) => ({ ...now, [hearing === 0 ? 'first' : 'second']: true })),
      LISTEN_MS,
    );
    return () => clearTimeout(timer);
  }, [test, hearing, playing, store]);
  const both = heard.first && heard.second;
  return (
    <>
      <Para live>{words.roundOfOfRounds(test.of + 1, ROUNDS)}</Para>
      <Chips label={words.listenTo}>
        <Chip pressed={hearing === 0} onPress={() => setHearing(0)}>
          {words.hearTheFirst}
        </Chip>
        <Chip pressed={hearing === 1} onPress={() => setHearing(1)}>
          {words.hearTheSecond}
        </Chip>
      </Chips>
      <Chips label={words.yourAnswer}>
        <Chip disabled={!both} onPress={() => onAnswer(true)}>
          {words.theFirstHasTheFeel}
        </Chip>
        <Chip disabled={!both} onPress={() => onAnswer(false)}>
          {words.theSecondHasIt}
        </Chip>
      </Chips>
      <Para quiet live>
        {both ? words.bothAreHeardWhichOne : playing ? words.hearEachOfThemFor : words.pressPlayThenHearEach}
      </Para>
      <Chip onPress={onEnd}>{words.endTheTest}</Chip>
    </>
  );
};

interface BlindTestProps {
  which: Compared;
  /** What the feel is set against, in words. */
  against: string;
}

/** The two in random order; which one is the feel is for the ear to say. */
export const BlindTest = ({ which, against }: BlindTestProps) => {
  const store = useAppStore();
  const act = useDo();
  const say = use(SayContext);
  const test = useApp((state) => state.comparing.blindTest);
  const blind = useApp((state) => state.comparing.blind);
  const [tallies, setTallies] = useState<Tally[]>([]);
  const [said, setSaid] = useState('');
  const [anew, setAnew] = useState(0);
  const feel = useApp(selectFeel);
  const b = useApp((state) => state.comparing.b);
  useEffect(() => {
    void readTallies().then(setTallies);
    return () => void store.dispatch(comparingEnded());
  }, [store]);

  const go = (next: Test) => {
    setSaid('');
    act(blindTestBegun(next));
  };
  const leave = () => act(blindTestLeft());
  const keep = (right: number, of: number): Tally => {
    const tally = { right, of, against, at: Date.now() };
    void keepTally(tally).then(setTallies);
    leave();
    return tally;
  };
  const answer = (first: boolean) => {
    if (!test) return;
    const right = test.right + (first === test.feelFirst ? 1 : 0);
    const of = test.of + 1;
    if (of < ROUNDS) go(nextRound(test.which, { ...test, right, of }));
    else setSaid(verdict(keep(right, of)));
  };
  // Whoever changes the feel, by a controller or by undo, hears which of the two has it.
  const under = blind ? test : null;
  const heard = useRef({ feel, b, under });
  useEffect(() => {
    const was = heard.current;
    heard.current = { feel, b, under };
    if (!under || !was.under || (was.feel === feel && was.b === b)) return;
    setAnew((times) => times + 1);
    act(blindTestTurned(nextRound(under.which)));
    say(words.feelChanged, words.blindTest);
  }, [feel, b, under, act, say]);
  const end = () => {
    if (test?.of) {
      keep(test.right, test.of);
      setSaid(words.endedAfterOfOfRounds(test.of, ROUNDS));
    } else leave();
  };

  return (
    <Group title={words.blindTest}>
      {test && blind ? (
        <Round key={`${anew} ${test.of}`} test={test} onAnswer={answer} onEnd={end} />
      ) : (
        <>
          {said ? <Para live>{said}</Para> : null}
          <Para quiet>{words.twoWaysToHearThe(ROUNDS)}</Para>
          <Chip onPress={() => go(test ? nextRound(test.which, test) : nextRound(which))}>
            {test ? words.goOnWithRoundOf(test.of + 1) : words.beginABlindTest}
          </Chip>
          {test ? <Chip onPress={end}>{words.endTheTest}</Chip> : null}
        </>
      )}
      <Before tallies={tallies} />
    </Group>
  );
};
