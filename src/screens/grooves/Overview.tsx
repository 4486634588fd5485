import { useDeferredValue } from 'react';
import {
  countsOf,
  FIELD_NAMES,
  type Catalogue,
  type Field,
  type Shown,
} from '../../../core/groove/catalogue';
import { groovesChanged } from '../../store/grooves';
import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Chips, Group } from '../../ui/Layout';
import { Para } from '../../ui/Words';
import { words } from '../../words/grooves';

/** What a list is narrowed by most, in the order in which a producer asks. */
const ASKED: Field[] = ['style', 'feel', 'meter', 'kind'];

interface OverviewProps {
  catalogue: Catalogue;
  shown: Shown;
}

/** What there is, where no groove is chosen yet: a tap narrows the list beside it. */
export const Overview = ({ catalogue, shown }: OverviewProps) => {
  const filters = useApp((state) => state.grooves.filters);
  const act = useDo();
  // The list answers a letter first.
  const later = useDeferredValue(shown);
  const turn = (field: Field, word: string) => {
    const { [field]: now, ...rest } = filters;
    act(groovesChanged({ filters: now === word ? rest : { ...rest, [field]: word } }));
  };
  return (
    <>
      <Para quiet>{words.chooseAGrooveToHear}</Para>
      {ASKED.map((field) => {
        const counts = countsOf(catalogue, later, field);
        const told = catalogue.fields[field].words
          .map((word, at) => ({ word, count: counts[at]! }))
          .filter(({ word, count }) => count > 0 || filters[field] === word);
        return (
          <Group key={field} title={words.byFieldName(FIELD_NAMES[field].toLowerCase())}>
            <Chips>
              {told.map(({ word, count }) => (
                <Chip key={word} pressed={filters[field] === word} onPress={() => turn(field, word)}>
                  {`${word} ${count}`}
                </Chip>
              ))}
            </Chips>
          </Group>
        );
      })}
    </>
  );
};
