import { Choice } from './Choice';
import { words } from '../words/ui';

const WHEN = [
  { value: 'now', name: words.atOnce },
  { value: 'beat', name: words.atTheNextBeat },
  { value: 'end', name: words.atThePatternsEnd },
] as const;

type When = (typeof WHEN)[number]['value'];

/** When another pattern begins while one plays. */
export const SwitchWhen = ({ value, onChange }: { value: When; onChange: (value: When) => void }) => (
  <Choice
    label={words.whilePlayingAnotherPatternBegins}
    short={words.begins}
    value={value}
    options={WHEN}
    onChange={onChange}
  />
);
