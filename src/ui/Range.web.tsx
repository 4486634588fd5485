import { useRef } from 'react';

interface RangeProps {
  /** The whole name, such as "Level of Kick". */
  label: string;
  /** What is shown of it. */
  short: string;
  value: number;
  least: number;
  most: number;
  step: number;
  shown: string;
  onChange: (value: number, gesture: string) => void;
}

/** A slider with a figure: the browser's own, which has the keys and says its value. */
export const Range = ({ label, short, value, least, most, step, shown, onChange }: RangeProps) => {
  const gesture = useRef('');
  const begin = (event: { timeStamp: number }) => (gesture.current = `${label} ${event.timeStamp}`);
  return (
    <label className="range">
      <span>{short}</span>
      <input
        type="range"
        aria-label={label}
        aria-valuetext={shown}
        min={least}
        max={most}
        step={step}
        value={value}
        onPointerDown={begin}
        onKeyDown={begin}
        onChange={(event) => onChange(Number(event.target.value), gesture.current)}
      />
      <span className="figure">{shown}</span>
    </label>
  );
};
