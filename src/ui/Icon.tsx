import ArrowUpFromLine from 'lucide-react/icons/arrow-up-from-line';
import Search from 'lucide-react/icons/search';
import SquareCheck from 'lucide-react/icons/square-check';
import BlankSquare from 'lucide-react/icons/square';
import Bookmark from 'lucide-react/icons/bookmark';
import ChevronDown from 'lucide-react/icons/chevron-down';
import ChevronLeft from 'lucide-react/icons/chevron-left';
import ChevronRight from 'lucide-react/icons/chevron-right';
import CopyPlus from 'lucide-react/icons/copy-plus';
import Download from 'lucide-react/icons/download';
import FolderOpen from 'lucide-react/icons/folder-open';
import Inbox from 'lucide-react/icons/inbox';
import Keyboard from 'lucide-react/icons/keyboard';
import Library from 'lucide-react/icons/library';
import Metronome from 'lucide-react/icons/metronome';
import Pencil from 'lucide-react/icons/pencil';
import Play from 'lucide-react/icons/play';
import Plus from 'lucide-react/icons/plus';
import Redo from 'lucide-react/icons/redo-2';
import Square from 'lucide-react/icons/square';
import Trash from 'lucide-react/icons/trash-2';
import Undo from 'lucide-react/icons/undo-2';
import X from 'lucide-react/icons/x';
import ZoomIn from 'lucide-react/icons/zoom-in';
import ZoomOut from 'lucide-react/icons/zoom-out';

interface ShapeProps {
  size?: number;
  strokeWidth?: number;
  fill?: string;
}

/** Our own notation in small: strings with beads. */
const Strings = ({ size = 20, strokeWidth = 1.8 }: ShapeProps) => (
  <svg width={size} height={size} viewBox="0 0 24 24" stroke="currentColor" fill="currentColor" aria-hidden>
    <path d="M2 6h20M2 12h20M2 18h20" strokeWidth={strokeWidth} />
    <circle cx="6" cy="6" r="3" />
    <circle cx="16.5" cy="12" r="3" />
    <circle cx="10" cy="18" r="2" />
  </svg>
);

/** Sections in a row, over their strings. */
const Sections = ({ size = 20, strokeWidth = 1.8 }: ShapeProps) => (
  <svg width={size} height={size} viewBox="0 0 24 24" stroke="currentColor" fill="currentColor" aria-hidden>
    <path d="M2 6h5M9 6h8M19 6h3" strokeWidth={strokeWidth + 2} />
    <path d="M2 13h20M2 18.5h20" strokeWidth={strokeWidth} />
    <circle cx="5" cy="13" r="2" />
    <circle cx="14" cy="13" r="2" />
    <circle cx="19" cy="18.5" r="2" />
  </svg>
);

/** A bead off its rule. */
const OffRule = ({ size = 20, strokeWidth = 1.8 }: ShapeProps) => (
  <svg width={size} height={size} viewBox="0 0 24 24" stroke="currentColor" fill="currentColor" aria-hidden>
    <path d="M2 12h20M8 3v18" strokeWidth={strokeWidth} fill="none" />
    <circle cx="14.5" cy="12" r="3.6" />
  </svg>
);

/** The icons in use, by what they mean here. */
const ICONS = {
  beats: FolderOpen,
  checked: SquareCheck,
  unchecked: BlankSquare,
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

export const Icon = ({
  name,
  size = 20,
  filled = false,
}: {
  name: IconName;
  size?: number;
  filled?: boolean;
}) => {
  const Shape = ICONS[name];
  return <Shape size={size} strokeWidth={1.8} aria-hidden fill={filled ? 'currentColor' : 'none'} />;
};
