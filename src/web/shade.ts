import { colord, type Colord } from 'colord';

/**
 * What RNE asks of its colours: lighter, darker, seen through. Its own package brings tables of names and of nine ways
 * to write a colour to the first screen; this does the little that is asked by a smaller one.
 */
class Shade {
  constructor(private readonly colour: Colord) {}

  alpha(share: number): Shade {
    return new Shade(this.colour.alpha(share));
  }

  /** @param share how much of the lightness goes, 0 to 1 */
  darken(share: number): Shade {
    return this.times(1 - share);
  }

  /** @param share how much of the lightness comes on top, 0 and up */
  lighten(share: number): Shade {
    return this.times(1 + share);
  }

  rgb(): this {
    return this;
  }

  string(): string {
    return this.colour.toRgbString();
  }

  toString(): string {
    return this.string();
  }

  private times(factor: number): Shade {
    const { l, ...others } = this.colour.toHsl();
    return new Shade(colord({ ...others, l: Math.min(100, l * factor) }));
  }
}

export default (value: string | undefined): Shade => new Shade(colord(value ?? '#000'));
