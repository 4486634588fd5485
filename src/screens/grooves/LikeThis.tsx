import { Items, Item } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { Cover } from '../../ui/Cover';
import { useMemo, useState } from 'react';
import type { Groove, GrooveRow } from '../../../core/groove/groove';
import { alike, goesText, goesWith, likenessOf, type Likeness } from '../../../core/groove/likeness';
import { patternGroove } from '../../../core/groove/fromPattern';
import { groovesChanged } from '../../store/grooves';
import { selectBeat, selectPattern, useApp, useDo } from '../../store/store';
import { Choice } from '../../ui/Choice';
import { choose } from './audition';
import { shelf, useShelf } from './shelf';
import { aboutRow } from './words';
import { words } from '../../words/grooves';

const SHOWN = 24;

type Question = 'groove' | 'pattern' | 'fills' | 'percussion';

const QUESTIONS: { value: Question; name: string }[] = [
  { value: 'groove', name: words.moreLikeThisGroove },
  { value: 'pattern', name: words.likeMyPattern },
  { value: 'fills', name: words.fillsThatGoWithIt },
  { value: 'percussion', name: words.percussionThatGoesWithIt },
];

const fits = (question: Question, { kind }: GrooveRow): boolean => {
  if (question === 'fills') return kind === 'fill' || kind === 'ending';
  return question === 'percussion' ? kind === 'percussion' : true;
};

const scoreFor = (question: Question) => (question === 'groove' || question === 'pattern' ? alike : goesWith);

/** In words: a share for what is alike, and how well for what goes together, which is no likeness. */
const scoreText = (question: Question, score: number): string =>
  scoreFor(question) === alike ? words.percentAlike(Math.round(score * 100)) : goesText(score);

/** The rows that answer a question best, with how well they do, 0 to 1. */
const ranked = (rows: GrooveRow[], question: Question, to: Likeness, not: string) => {
  const score = scoreFor(question);
  return rows
    .filter((row) => row.id !== not && fits(question, row))
    .flatMap((row) => {
      const likeness = shelf.likeness(row.id);
      return likeness ? [{ row, score: score(to, likeness) }] : [];
    })
    .sort((a, b) => b.score - a.score || a.row.name.localeCompare(b.row.name))
    .slice(0, SHOWN);
};

/** What is like a groove or the pattern, and what goes with it. */
export const LikeThis = ({ groove }: { groove: Groove }) => {
  const [question, setQuestion] = useState<Question>('groove');
  const { catalogue } = useShelf();
  const beat = useApp(selectBeat);
  const pattern = useApp(selectPattern);
  const act = useDo();
  const found = useMemo(() => {
    const own = question === 'pattern' && beat && pattern ? patternGroove(beat, pattern) : groove;
    return ranked(catalogue.rows, question, likenessOf(own), groove.id);
  }, [question, catalogue, beat, pattern, groove]);
  return (
    <>
      <Choice
        label={words.whatIsLookedFor}
        short={words.lookFor}
        value={question}
        options={QUESTIONS}
        onChange={setQuestion}
      />
      <Items style={styles.likeList} label={words.found}>
        {found.map(({ row, score }) => (
          <Item key={row.id} style={styles.likeLine}>
            <View style={styles.likeOpen}>
              <Cover
                label={`${row.name}, ${scoreText(question, score)}`}
                onPress={() => {
                  act(groovesChanged({ chosen: row.id }));
                  void choose(row.id, true);
                }}
              />
              <View style={styles.grooveWords}>
                <Words bold lines={1}>
                  {row.name}
                </Words>
                <Words small quiet lines={1}>
                  {aboutRow(row)}
                </Words>
              </View>
              <Words figure>{scoreText(question, score)}</Words>
            </View>
          </Item>
        ))}
      </Items>
      {found.length ? null : <Para quiet>{words.thereIsNothingToCompare}</Para>}
    </>
  );
};
