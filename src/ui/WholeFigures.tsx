import { NumberField } from './NumberField';

interface WholeFiguresProps<Key extends string> {
  of: readonly {
    key: Key;
    label: string;
    /** What stands below it; left out, its label in small letters. */
    short?: string;
    least: number;
    most: number;
  }[];
  values: Readonly<Record<Key, number>>;
  width: number;
  onChange: (change: Partial<Record<Key, number>>, gesture?: string) => void;
}

/** Several whole numbers that belong together, each to be typed or drawn. */
export const WholeFigures = <Key extends string>({ of, values, width, onChange }: WholeFiguresProps<Key>) =>
  of.map(({ key, label, short = label.toLowerCase(), least, most }) => (
    <NumberField
      key={key}
      label={label}
      value={values[key]}
      least={least}
      most={most}
      under={short}
      width={width}
      onChange={(value, gesture) =>
        onChange({ [key]: Math.round(value) } as Partial<Record<Key, number>>, gesture)
      }
    />
  ));
