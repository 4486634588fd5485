import { Later } from '../ui/Later';

const screen = async () => (await import('../screens/later')).KitScreen;

export default function Kit() {
  return <Later of={screen} />;
}
