import type { Ms, Ticks } from '../units';

/**
 * The kind of a stroke within its hit: the blow itself, a grace stroke before it, what a roll adds to it, a repeat after it, or what it
 * sets off on another lane.
 */
export type StrokeKind = 'main' | 'grace' | 'roll' | 'echo' | 'spark';

/** A stroke on its way through the stages: one blow of a stick. */
export interface FeltStroke {
  /** Where it enters, and how hard. */
  at: Ticks;
  velocity: number;
  /** Where it has come to, and how hard it is by now; not rounded. */
  tick: Ticks;
  force: number;
  /** The stroke that it goes with at a fixed distance: grace strokes, and the softer notes of a flam. */
  tie: Tie | null;
  /** The first stroke of its roll, which leads itself; null where there is no roll. */
  lead: FeltStroke | null;
  /** In semitones against the lane's own note. */
  pitch: number;
  /** By how much a stagger holds it back, of a feel and of the one that it is blended with. */
  delay: Ticks;
  otherDelay: Ticks;
  cycle: number;
  step: number;
  hitIndex: number;
  kind: StrokeKind;
  /**
   * Which of its hit's strokes it is, for what is drawn at random: 0 the main one, 1 and on a roll's, -1 and on the grace strokes,
   * 101 and on the echoes, 200 and on what sparks set off.
   */
  stroke: number;
  /** False where chance leaves it out: it is carried along to be drawn, and moves no other. */
  sounds: boolean;
  /** The straight position that it belongs to. */
  gridTick: Ticks;
  /** The stroke that it has become one with, being less than 1 ms from it. */
  into: FeltStroke | null;
  /** By how far timing noise moves it. */
  moved: Ticks;
}

/** The tie of a stroke to its main stroke: the distance from it in ms, negative before it, and its level against it. */
export interface Tie {
  main: FeltStroke;
  apart: Ms;
  share: number;
}

/** Whether a stroke belongs to a step that begins at or after a loop's end. */
export const isPast = ({ gridTick }: FeltStroke, end: Ticks): boolean => gridTick >= end - 1e-6;
