import { useRef } from 'react';

interface SliderProps {
  /** The whole name, such as "Level of Kick". */
  label: string;
  value: number;
  least: number;
  most: number;
  step: number;
  shown: string;
  onChange: (value: number, gesture: string) => void;
}

/** A bare slider, for a row that shows its name and figure itself: the browser's own, which has the keys and says its value. */
export const Slider = ({ label, value, least, most, step, shown, onChange }: SliderProps) => {
  const gesture = useRef('');
  const begin = (event: { timeStamp: number }) => (gesture.current = `${label} ${event.timeStamp}`);
  return (
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
  );
};
