/** The dyes and measures by name, for styles written in code. Their values stand in theme.css. */
export const colour = {
  ground: 'var(--ground)',
  raised: 'var(--raised)',
  line: 'var(--line)',
  text: 'var(--text)',
  quiet: 'var(--quiet)',
  pip: 'var(--pip)',
  woad: 'var(--woad)',
  ruddle: 'var(--ruddle)',
  weld: 'var(--weld)',
  lichen: 'var(--lichen)',
  madder: 'var(--madder)',
  walnut: 'var(--walnut)',
  heather: 'var(--heather)',
  rule: 'var(--rule)',
} as const;

export const font = {
  words: "'Hanken Grotesk', system-ui, sans-serif",
  figures: "'Martian Mono', ui-monospace, monospace",
} as const;

export const CORNER = 10;
/** The least that a thumb can hit. */
export const TARGET = 44;
