/** What is being dragged towards the song: what follows when it is let go there. */
let aside: (() => void) | null = null;

export const drag = (setAside: (() => void) | null): void => {
  aside = setAside;
};

export const isDragged = (): boolean => aside !== null;

/** Lets go of what is dragged where it is set aside. */
export const letGo = (): void => {
  aside?.();
  aside = null;
};
