import ArrowUpFromLine from 'lucide-react-native/icons/arrow-up-from-line';
import Search from 'lucide-react-native/icons/search';
import SquareCheck from 'lucide-react-native/icons/square-check';
import BlankSquare from 'lucide-react-native/icons/square';
import Bookmark from 'lucide-react-native/icons/bookmark';
import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import CopyPlus from 'lucide-react-native/icons/copy-plus';
import Download from 'lucide-react-native/icons/download';
import FolderOpen from 'lucide-react-native/icons/folder-open';
import Inbox from 'lucide-react-native/icons/inbox';
import Keyboard from 'lucide-react-native/icons/keyboard';
import Library from 'lucide-react-native/icons/library';
import Metronome from 'lucide-react-native/icons/metronome';
import Pencil from 'lucide-react-native/icons/pencil';
import Play from 'lucide-react-native/icons/play';
import Plus from 'lucide-react-native/icons/plus';
import Redo from 'lucide-react-native/icons/redo-2';
import Square from 'lucide-react-native/icons/square';
import Trash from 'lucide-react-native/icons/trash';
import Undo from 'lucide-react-native/icons/undo-2';
import Chosen from 'lucide-react-native/icons/circle-dot';
import Unchosen from 'lucide-react-native/icons/circle';
import X from 'lucide-react-native/icons/x';
import ZoomIn from 'lucide-react-native/icons/zoom-in';
import ZoomOut from 'lucide-react-native/icons/zoom-out';

import { memo, type ReactNode } from 'react';
import { Circle, Path, Svg } from 'react-native-svg';

interface ShapeProps {
  size?: number;
  strokeWidth?: number;
  fill?: string;
}

const Field = ({ size, children }: { size: number; children: ReactNode }) => (
  <Svg width={size} height={size} viewBox="0 0 24 24" stroke="currentColor" fill="currentColor" aria-hidden>
    {children}
  </Svg>
);

/** Our own notation in small: strings with beads. */
const Strings = ({ size = 20, strokeWidth = 1.8 }: ShapeProps) => (
  <Field size={size}>
    <Path d="M2 6h20M2 12h20M2 18h20" strokeWidth={strokeWidth} />
    <Circle cx="6" cy="6" r="3" />
    <Circle cx="16.5" cy="12" r="3" />
    <Circle cx="10" cy="18" r="2" />
  </Field>
);

/** Sections in a row, over their strings. */
const Sections = ({ size = 20, strokeWidth = 1.8 }: ShapeProps) => (
  <Field size={size}>
    <Path d="M2 6h5M9 6h8M19 6h3" strokeWidth={strokeWidth + 2} />
    <Path d="M2 13h20M2 18.5h20" strokeWidth={strokeWidth} />
    <Circle cx="5" cy="13" r="2" />
    <Circle cx="14" cy="13" r="2" />
    <Circle cx="19" cy="18.5" r="2" />
  </Field>
);

/** A bead off its rule. */
const OffRule = ({ size = 20, strokeWidth = 1.8 }: ShapeProps) => (
  <Field size={size}>
    <Path d="M2 12h20M8 3v18" strokeWidth={strokeWidth} fill="none" />
    <Circle cx="14.5" cy="12" r="3.6" />
  </Field>
);

/** The icons in use, by what they mean here. */
const ICONS = {
  beats: FolderOpen,
  checked: SquareCheck,
  unchecked: BlankSquare,
  chosen: Chosen,
  unchosen: Unchosen,
  close: X,
  copy: CopyPlus,
  down: ChevronDown,
  download: Download,
  feel: OffRule,
  export: ArrowUpFromLine,
  grooves: Library,
  keeper: Bookmark,
  keys: Keyboard,
  left: ChevronLeft,
  metronome: Metronome,
  new: Plus,
  pattern: Strings,
  play: Play,
  redo: Redo,
  remove: Trash,
  rename: Pencil,
  right: ChevronRight,
  search: Search,
  song: Sections,
  stop: Square,
  tray: Inbox,
  undo: Undo,
  zoomIn: ZoomIn,
  zoomOut: ZoomOut,
};

export type IconName = keyof typeof ICONS;

export const Icon = memo(function Icon({
  name,
  size = 20,
  filled = false,
}: {
  name: IconName;
  size?: number;
  filled?: boolean;
}) {
  const Shape = ICONS[name];
  return <Shape size={size} strokeWidth={1.8} aria-hidden fill={filled ? 'currentColor' : 'none'} />;
});
