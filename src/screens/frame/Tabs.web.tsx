import { Link, usePathname } from 'expo-router';
import type { DragEvent } from 'react';
import { isDragged, letGo } from '../../ui/dragged';
import { Icon, type IconName } from '../../ui/Icon';

const TABS: { href: '/grooves' | '/' | '/feel' | '/song' | '/export'; label: string; icon: IconName }[] = [
  { href: '/grooves', label: 'Grooves', icon: 'grooves' },
  { href: '/', label: 'Pattern', icon: 'pattern' },
  { href: '/feel', label: 'Feel', icon: 'feel' },
  { href: '/song', label: 'Song', icon: 'song' },
  { href: '/export', label: 'Export', icon: 'export' },
];

/** The screens in the order of the work. */
export const Tabs = () => {
  const path = usePathname();
  return (
    <nav className="tabs" aria-label="Screens">
      {TABS.map(({ href, label, icon }) => (
        <Link key={href} href={href} asChild>
          <a
            {...(path === href && { 'aria-current': 'page' as const })}
            {...(href === '/song' && {
              onDragOver: (event: DragEvent) => isDragged() && event.preventDefault(),
              onDrop: (event: DragEvent) => {
                if (!isDragged()) return;
                event.preventDefault();
                letGo();
              },
            })}
          >
            <Icon name={icon} size={22} />
            {label}
          </a>
        </Link>
      ))}
    </nav>
  );
};
