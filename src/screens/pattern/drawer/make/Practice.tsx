import { TEMPO } from '../../../../../core/units';
import { useApp, useAppStore } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { figure } from '../../../../ui/figures';
import { Disclosure } from '../../../../ui/Disclosure';
import { Figures } from '../../../../ui/Layout';
import { NumberField } from '../../../../ui/NumberField';
import { Para } from '../../../../ui/Words';
import { useKept } from '../../../../ui/useKept';
import { words } from '../../../../words/make';
import { endPractice, practise, PRACTICE_DEFAULTS, type PracticePlan } from './practice';

const FIELDS: { key: keyof PracticePlan; label: string; under: string; least: number; most: number }[] = [
  { key: 'from', label: words.practiseFrom, under: words.practiceUnder.from, ...TEMPO },
  { key: 'to', label: words.practiseTo, under: words.practiceUnder.to, ...TEMPO },
  { key: 'by', label: words.practiseBy, under: words.practiceUnder.by, least: 1, most: 40 },
  { key: 'every', label: words.practiseEvery, under: words.practiceUnder.every, least: 1, most: 64 },
];

/** Slow to fast, with the beat's own tempo left alone. */
export const Practice = () => {
  const store = useAppStore();
  const [plan, setPlan] = useKept<PracticePlan>('practice', PRACTICE_DEFAULTS);
  const now = useApp(({ transport }) => transport.practice);
  const change = (key: keyof PracticePlan, value: number) => {
    const next = { ...plan, [key]: value };
    setPlan(next);
    if (now !== null) practise(store, next);
  };
  return (
    <Disclosure title={words.practise}>
      <Figures>
        {FIELDS.map(({ key, label, under, least, most }) => (
          <NumberField
            key={key}
            label={label}
            value={plan[key]}
            least={least}
            most={most}
            under={under}
            width={72}
            onChange={(value) => change(key, value)}
          />
        ))}
      </Figures>
      <Chip pressed={now !== null} onPress={() => (now === null ? practise(store, plan) : endPractice())}>
        {now === null ? words.startPractice : words.endPractice}
      </Chip>
      {now === null ? null : <Para live>{words.practising(figure(now))}</Para>}
    </Disclosure>
  );
};
