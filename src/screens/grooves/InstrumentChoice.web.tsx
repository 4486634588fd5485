import { INSTRUMENT_IDS, INSTRUMENTS, type InstrumentId } from '../../../core/beat/instruments';

interface InstrumentChoiceProps {
  label: string;
  value: InstrumentId | null;
  /** What is said for none. */
  none: string;
  onChange: (id: InstrumentId | null) => void;
}

/** One of all instruments, or none. */
export const InstrumentChoice = ({ label, value, none, onChange }: InstrumentChoiceProps) => (
  <select
    className="instrument-choice"
    aria-label={label}
    value={value ?? ''}
    onChange={(event) => onChange((event.target.value || null) as InstrumentId | null)}
  >
    <option value="">{none}</option>
    {INSTRUMENT_IDS.map((id) => (
      <option key={id} value={id}>
        {INSTRUMENTS[id].name}
      </option>
    ))}
  </select>
);
