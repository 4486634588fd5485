import { Link, usePathname } from 'expo-router';
import { Icon, type IconName } from '../../ui/Icon';

const TABS: { href: '/grooves' | '/' | '/feel' | '/export'; label: string; icon: IconName }[] = [
  { href: '/grooves', label: 'Grooves', icon: 'grooves' },
  { href: '/', label: 'Pattern', icon: 'pattern' },
  { href: '/feel', label: 'Feel', icon: 'feel' },
  { href: '/export', label: 'Export', icon: 'export' },
];

/** The screens in the order of the work. */
export const Tabs = () => {
  const path = usePathname();
  return (
    <nav className="tabs" aria-label="Screens">
      {TABS.map(({ href, label, icon }) => (
        <Link key={href} href={href} asChild>
          <a {...(path === href && { 'aria-current': 'page' as const })}>
            <Icon name={icon} size={22} />
            {label}
          </a>
        </Link>
      ))}
    </nav>
  );
};
