import type { Shape } from '../../core/document/feelSchema';
import './pictures.css';
import { slotOffsets } from '../../core/feel/templateBend';

const WIDTH = 320;
const HEIGHT = 44;

interface TemplatePictureProps {
  shape: Shape;
  /** How much of its timing is drawn. */
  timing?: number;
}

/** A template as beads on one string, each off its rule by its offset, as large as its velocity. */
export const TemplatePicture = ({ shape, timing = 1 }: TemplatePictureProps) => {
  const offsets = slotOffsets(shape);
  const step = WIDTH / shape.slots.length;
  return (
    <svg className="template-picture" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <path className="string-line" d={`M0 ${HEIGHT / 2}H${WIDTH}`} />
      {shape.slots.map((slot, at) => {
        const rule = (at + 0.5) * step;
        return (
          <g key={at}>
            <path className="rule-line" d={`M${rule} 6V${HEIGHT - 6}`} />
            {slot ? (
              <circle
                cx={rule + offsets[at]! * timing * step}
                cy={HEIGHT / 2}
                r={Math.min(step * 0.45, 1.5 + slot.velocity * 7)}
              />
            ) : null}
          </g>
        );
      })}
    </svg>
  );
};
