import { words } from '../../words/commands';

/** All keys, for the sheet that lists them. */
export const KEYS: { keys: string; does: string }[] = [
  { keys: words.space, does: words.playAndStopOnA },
  { keys: words.arrows, does: words.moveAmongTheStepsAnd },
  { keys: words.homeEnd, does: words.firstAndLastStepOf },
  { keys: words.enter, does: words.putAHitOnThe },
  { keys: words.n1To9, does: words.velocityOfTheStep9 },
  { keys: words.o, does: words.openTheLaneOrClose },
  { keys: words.d, does: words.intoTheDrawerEscapeThere },
  { keys: words.h, does: words.hearTheLane },
  { keys: words.mS, does: words.muteOrSoloTheLane },
  { keys: words.shiftArrows, does: words.selectMoreSteps },
  { keys: words.ctrlOrCmdA, does: words.selectTheLaneWithShift },
  { keys: words.escape, does: words.deselect },
  { keys: words.ctrlOrCmdCX, does: words.copyCutPasteAtThe },
  { keys: words.ctrlOrCmdD, does: words.duplicateWhatIsSelected },
  { keys: words.altArrows, does: words.moveWhatIsSelected },
  { keys: words.deleteKey, does: words.takeTheSelectedHitsOff },
  { keys: words.and, does: words.nudgeBy1MsWith },
  { keys: words.shift1To9, does: words.showOneOfTheFirst },
  { keys: words.ctrlOrCmdZ, does: words.undo },
  { keys: words.shiftCtrlOrCmdZ, does: words.redo },
  { keys: words.upDown, does: words.throughTheListOfGrooves },
  { keys: words.leftRight, does: words.fromBarToBarOf },
  { keys: words.ctrlOrCmdK, does: words.findACommandByIts },
  { keys: '?', does: words.thisList },
];
