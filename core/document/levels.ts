/** The velocities that one tap gives, before anyone has set others. */
export const LEVELS = { ghost: 36, normal: 96, accent: 120 } as const;
