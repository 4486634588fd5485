import { usePathname } from 'expo-router';
import { Later } from '../../ui/Later';
import { Themed } from '../../ui/Themed';

const standIns = async () => (await import('../later')).StandIns;

/** A stand-in for a device, by its address: a page of its own, without the app's frame. */
export const StandInRoute = () => {
  const path = usePathname();
  return (
    <Themed theme="system">
      <Later of={standIns} given={{ path }} />
    </Themed>
  );
};
